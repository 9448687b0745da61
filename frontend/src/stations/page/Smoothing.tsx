import type { Line, Schemas, Source } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { useLineHands } from "./useLineHands";

/** How much the hand's stroke is smoothed; live while it is dragged, from exactly as drawn to long and smooth. */
export function Smoothing({ line }: { line: Line }) {
  const { draft, reshape } = useLineHands();
  const { kind, stroke, closed } = line.source as unknown as Schemas["PointsSource"];
  if (kind !== "points" || !stroke) return null;
  const at = (smooth_pct: number): Source => ({ kind: "hand", ...stroke, smooth_pct, straight: false, closed: closed ?? false });
  const within = (pct: number): number => Math.min(100, Math.max(0, pct));
  return (
    <div className="mt-1.5">
      <NumberField
        compact
        label="Smoothing of the hand"
        unit="%"
        step={5}
        standard={35}
        value={stroke.smooth_pct}
        onDrag={(pct) => draft({ line_id: line.id, source: at(within(pct)) })}
        onSet={(pct) => reshape(line, at(within(pct)), `smoothing of ${line.name} to ${within(pct)} %`, "smoothing")}
        onLeave={() => draft(null)}
      />
    </div>
  );
}
