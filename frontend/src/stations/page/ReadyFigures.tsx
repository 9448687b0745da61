import type { Line, Ready } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { useLaidPage } from "./laidPage";
import { useLineHands } from "./useLineHands";

const UNITS: Record<string, string> = { sides: "", points: "", swags: "", turns: "", bows: "", waist: "%" };
const STEPS: Record<string, number> = { turns: 0.25, waist: 1, sides: 1, points: 1, swags: 1, bows: 1 };

/** A ready line's figures, live while they are dragged. */
export function ReadyFigures({ line, source }: { line: Line; source: Ready }) {
  const { page } = useLaidPage();
  const { draft, reshape } = useLineHands();
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
  const field = (name: string, value: number, made: (next: number) => Ready) => (
    <NumberField
      key={name}
      compact
      label={name[0].toUpperCase() + name.slice(1)}
      unit={UNITS[name] ?? (name === "turn" ? "°" : "mm")}
      step={STEPS[name] ?? 1}
      value={value}
      onDrag={(next) => draft({ line_id: line.id, source: made(next) })}
      onSet={(next) => reshape(line, made(next), `${name} of ${line.name} to ${next}`)}
      onLeave={() => draft(null)}
    />
  );
  return (
    <div role="group" aria-label="Figures of the line" className="mt-1.5 flex flex-wrap gap-x-3 gap-y-1">
      {Object.entries(source.figures).map(([name, value]) => field(name, value, (next) => with_({ [name]: next })))}
      {source.shape === "rectangle" && field("inset", (page.width_mm - source.figures.width) / 2, inset)}
      {field("turn", source.turn_deg ?? 0, (turn_deg) => with_({}, { turn_deg }))}
    </div>
  );
}
