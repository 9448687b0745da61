import { useCallback } from "react";
import type { Motif } from "../../shared/api/client";
import { useMotifs } from "../../shared/api/motifs";
import { useOpenWorkshop } from "../../shared/api/queries";
import { go } from "../../shared/ui/place";
import { fitView } from "../../shared/view/view";
import { stampOf, stampShapes } from "../../shared/view/stamp";
import type { Paint } from "../../shared/view/layers";
import { WorkCanvas } from "../../shared/view/WorkCanvas";

const CURRENT = "aria-[current]:border-2 aria-[current]:border-indigo";

/** All motifs; press one to bring it to the bench. */
export function MotifList({ open }: { open: { id: number } | undefined }) {
  const workshop = useOpenWorkshop();
  const drawn = useMotifs(workshop.motifs);
  return (
    <>
      <h2 className="mb-1 text-[15px]">Motifs</h2>
      <ul className="grid min-h-0 flex-1 auto-rows-[84px] grid-cols-3 gap-1.5 overflow-y-auto">
        {workshop.motifs.map((motif, i) => (
          <li key={motif.id}>
            <button
              aria-current={open?.id === motif.id || undefined}
              className={`flex h-full w-full flex-col border border-rule bg-work hover:border-loden ${CURRENT}`}
              onClick={() => go("motif", motif.id)}
            >
              <span className="min-h-0 w-full flex-1">{drawn && <Portrait motif={drawn[i]} />}</span>
              <span className="w-full truncate px-1 pb-0.5 text-[12px]">{motif.name}</span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

function Portrait({ motif }: { motif: Motif }) {
  const paint = useCallback<Paint>(
    (ctx, size, ratio) => {
      const view = fitView(size.width, size.height, [motif.width_mm, motif.height_mm], 7);
      const scale = Math.min(view.scale, 6);
      ctx.setTransform(
        scale * ratio,
        0,
        0,
        scale * ratio,
        (size.width / 2) * ratio,
        (size.height / 2 + (motif.base_line_mm - motif.height_mm / 2) * scale) * ratio,
      );
      stampShapes(ctx, stampOf(motif));
    },
    [motif],
  );
  return <WorkCanvas paint={paint} label={motif.name} />;
}
