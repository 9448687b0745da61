import { ToggleGroup } from "radix-ui";
import { useCallback } from "react";
import { Choice } from "../../shared/ui/Choice";
import type { Motif } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { EXTENT } from "../../shared/api/tables";
import type { Blend } from "../../shared/view/cover";
import type { Paint } from "../../shared/view/layers";
import { laidOf, paintPieces } from "../../shared/view/painter";
import { WorkCanvas } from "../../shared/view/WorkCanvas";
import { useLaidBench, useOpenBench } from "./openBench";
import { wayWords } from "./wordsOf";
import { useMotifsOf } from "./useInked";

const WAYS: Blend[] = [
  ...(["normal", "multiply", "screen", "overlay", "darken", "lighten", "color-dodge", "color-burn"] as const),
  ...(["hard-light", "soft-light", "difference", "exclusion", "hue", "saturation", "color", "luminosity"] as const),
];
const SHOWN = 1.6; // pieces in a picture; chosen: a join is among them

/** The sixteen ways of laying on, each as this brush shows on the ground at hand. */
export function LaidOnAs({ way, blends }: { way: Blend; blends: "line" | "each_piece" }) {
  const { hands: edit, ground } = useOpenBench();
  const { flat, header } = useLaidBench();
  const motifs = useMotifsOf(flat);
  return (
    <div>
      <div className="flex h-6 items-center gap-6">
        <span className="text-[12.5px] text-moss">Laid on as</span>
        {way !== "normal" && (
          <Choice
            small
            side
            label="What is laid on so"
            hidden
            value={blends}
            options={[
              { value: "line", label: "the line as one" },
              { value: "each_piece", label: "each piece" },
            ]}
            onSet={(next) =>
              edit.set({ ink: { blends: next } }, next === "line" ? "the line laid on as one" : "each piece laid on")
            }
          />
        )}
      </div>
      <ToggleGroup.Root
        type="single"
        aria-label="Laid on as"
        value={way}
        className="grid grid-cols-8 items-start gap-x-1 gap-y-0.5"
        onValueChange={(laid_on_as: Blend) =>
          laid_on_as && edit.set({ ink: { laid_on_as } }, `laid on as ${wayWords(laid_on_as)}`)
        }
      >
        {WAYS.map((each) => (
          <ToggleGroup.Item
            key={each}
            value={each}
            aria-label={wayWords(each)}
            className="min-w-0 border-b-2 border-transparent pb-px text-center text-[11px] leading-[12px] tracking-tighter
              hover:border-rule data-[state=on]:border-madder data-[state=on]:font-semibold"
          >
            <span className="block h-[26px] w-full border border-rule">
              {flat && header && <Sample scene={flat} motifs={motifs} way={each} ground={ground.glass} pitch={header.pitch_mm} />}
            </span>
            {wayWords(each)}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </div>
  );
}

interface SampleProps {
  scene: Scene;
  motifs: Motif[];
  way: Blend;
  ground: string;
  pitch: number;
}

/** A stretch of the flat run laid on in some way, on the ground. */
function Sample({ scene, motifs, way, ground, pitch }: SampleProps) {
  const paint = useCallback<Paint>(
    (ctx, size, ratio) => {
      ctx.fillStyle = ground;
      ctx.fillRect(0, 0, size.width, size.height);
      const scale = size.width / (SHOWN * pitch);
      const first = scene.extents.length > EXTENT.width ? scene.extents[EXTENT.width + EXTENT.s] : 0;
      const view = { scale, x: size.width / 2 - (first + pitch / 2) * scale, y: size.height / 2 };
      paintPieces(ctx, laidOf(motifs, { ...scene, laid_on_as: way, pieces_laid_on_as: "normal" }), view, ratio, size);
    },
    [scene, motifs, way, ground, pitch],
  );
  return <WorkCanvas paint={paint} label={wayWords(way)} />;
}
