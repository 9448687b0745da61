import { useCallback, useMemo } from "react";
import { useLay } from "../../shared/api/useLay";
import type { Paint } from "../../shared/view/layers";
import { laidOf, paintPieces } from "../../shared/view/painter";
import { WorkCanvas } from "../../shared/view/WorkCanvas";
import { draftOf, useLaidBench, useOpenBench } from "./openBench";
import { PROPERTIES, type Variation } from "./variations";
import { useMotifsOf } from "./useInked";

const SEEN_PITCHES = 2.4; // of the brush, in one picture
const LEVEL = { width_along: [], taper_start_mm: 0, taper_end_mm: 0 };

/** The brush where a variation has one value all along, nothing else of it varied. */
export function EndPicture({ variation, value }: { variation: Variation; value: number }) {
  const { brush, ground } = useOpenBench();
  const { said, header } = useLaidBench();
  const body = useMemo(() => {
    const even = { of: variation.of, follows: "length" as const, between: [value, value], gather_pct: 0 };
    const settings = { ...said, variations: [even], hand: { ...said.hand, ...LEVEL }, rows: { ...said.rows, beside_mm: [] } };
    return { ...draftOf(brush), settings, straight: true };
  }, [brush, said, variation.of, value]);
  const { laid } = useLay("/api/bench/deals", body, { cures: false });
  const scene = laid?.scenes[0];
  const motifs = useMotifsOf(scene);
  const pitch = header?.pitch_mm ?? 0;
  const glass = ground.glass;
  const paint = useCallback<Paint>(
    (ctx, size, ratio) => {
      ctx.fillStyle = glass;
      ctx.fillRect(0, 0, size.width, size.height);
      if (!scene?.box || !pitch) return;
      const scale = size.width / (SEEN_PITCHES * pitch);
      const [width, height] = scene.box;
      const view = { scale, x: size.width / 2 - (width / 2) * scale, y: size.height / 2 - (height / 2) * scale };
      paintPieces(ctx, laidOf(motifs, scene), view, ratio, size);
    },
    [scene, motifs, pitch, glass],
  );
  const { word, unit } = PROPERTIES[variation.of];
  return (
    <span className="block h-[40px] w-[78px] border border-rule">
      <WorkCanvas paint={paint} label={`${word} ${value} ${unit}`} />
    </span>
  );
}
