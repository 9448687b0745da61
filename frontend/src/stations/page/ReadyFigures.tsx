import type { Line, Ready } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { useLaidPage } from "./laidPage";
import { useLineHands } from "./useLineHands";
import { useReadyLines } from "./useReadyLines";

/** A ready line's figures, live while they are dragged. */
export function ReadyFigures({ line, source }: { line: Line; source: Ready }) {
  const { page } = useLaidPage();
  const { draft, reshape } = useLineHands();
  const { data } = useReadyLines(page, true);
  const known = data?.ready.find(({ shape }) => shape === source.shape)?.figures ?? [];
  const with_ = (figures: Record<string, number>, more: Partial<Ready> = {}): Ready => ({
    ...source,
    ...more,
    figures: { ...source.figures, ...figures },
  });
  const inset = (mm: number): Ready =>
    with_(
      { width: page.width_mm - 2 * mm, height: page.height_mm - 2 * mm },
      { at: [page.width_mm / 2, page.height_mm / 2], turn_deg: 0 },
    );
  const field = (name: string, value: number, unit: string, made: (next: number) => Ready, step = 1) => (
    <NumberField
      key={name}
      compact
      label={name[0].toUpperCase() + name.slice(1)}
      unit={unit}
      step={step}
      value={value}
      onDrag={(next) => draft({ line_id: line.id, source: made(next) })}
      onSet={(next) => reshape(line, made(next), `${name} of ${line.name} to ${next}`, name)}
      onLeave={() => draft(null)}
    />
  );
  return (
    <div role="group" aria-label="Figures of the line" className="mt-1.5 flex flex-wrap gap-x-3 gap-y-1">
      {known.map(({ name, unit, least }) =>
        field(name, source.figures[name], unit, (next) => with_({ [name]: next }), Math.min(1, unit ? 1 : least)),
      )}
      {source.shape === "rectangle" && field("inset", (page.width_mm - source.figures.width) / 2, "mm", inset)}
      {field("turn", source.turn_deg ?? 0, "°", (turn_deg) => with_({}, { turn_deg }))}
    </div>
  );
}
