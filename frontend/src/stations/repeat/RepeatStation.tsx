import { useMemo, useState } from "react";
import type { Brush, Motif, Workshop } from "../../shared/api/client";
import { useMotifs } from "../../shared/api/motifs";
import { go } from "../../shared/ui/place";
import { Bench } from "./RepeatBench";

export function RepeatStation({ workshop, id }: { workshop: Workshop; id: number | null }) {
  const brush = workshop.brushes.find((b) => b.id === id) ?? workshop.brushes[0];
  const summaries = useMemo(
    () => (brush ? laidIds(brush.pieces).flatMap((own) => workshop.motifs.find((m) => m.id === own) ?? []) : []),
    [brush, workshop.motifs],
  );
  const motifs = useMotifs(summaries);
  const shown = useLastWhole(brush, motifs);
  if (!brush || !summaries.length) return <NoBrush />;
  if (!shown) return <p className="p-8 text-moss">Opening {brush.name}…</p>;
  return <Bench key={brush.id} {...shown} workshop={workshop} />;
}

/** A brush with its motifs; while motifs that it took anew are to come, as it was before, so that the bench stays open. */
function useLastWhole(brush: Brush | undefined, motifs: Motif[] | null): { brush: Brush; motifs: Motif[] } | null {
  const [last, setLast] = useState<{ brush: Brush; motifs: Motif[] } | null>(null);
  if (!brush) return null;
  if (!motifs) return last?.brush.id === brush.id ? last : null;
  if (last?.brush === brush && last.motifs === motifs) return last;
  const whole = { brush, motifs };
  setLast(whole);
  return whole;
}

/** Motif ids in the order in which laid pieces number them: the repeat's variants, then the roles that have one. */
const laidIds = (pieces: Brush["pieces"]): number[] =>
  [...pieces.repeat, pieces.start, pieces.end, pieces.outside_corner, pieces.inside_corner].filter((i) => i != null);

function NoBrush() {
  return (
    <div className="mx-auto mt-24 max-w-[56ch]">
      <h2 className="text-xl">No brush yet</h2>
      <p className="my-3">
        A brush begins with a motif. Bring one in at the Motif station, then make a brush of it: it is laid here flat and on trial
        lines.
      </p>
      <button className="firm-button" onClick={() => go("motif")}>
        Go to Motif
      </button>
    </div>
  );
}
