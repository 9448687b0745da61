import { useHandle } from "../../shared/ui/handle";
import { LEFT } from "./flatSizes";
import { useLaidBench, useOpenBench } from "./openBench";
import { PROPERTIES, type Variation } from "./variations";

const STEP = 5; // % of a piece's length

/**
 * The band within which pieces lie off the line: its two edges drag how far; `length` px of a piece, about the `middle`, `end`
 * where the run ends.
 */
export function AcrossMark({ length, end, middle }: { length: number; end: number; middle: number }) {
  const { said } = useLaidBench();
  const own = said.variations ?? [];
  const at = own.findIndex(({ of }) => of === "across");
  if (at < 0 || length <= 0) return null;
  return [0, 1].map((side) => <Edge key={side} own={own} at={at} side={side} length={length} end={end} middle={middle} />);
}

interface EdgeProps {
  own: Variation[];
  at: number;
  side: number;
  length: number;
  end: number;
  middle: number;
}

function Edge({ own, at, side, length, end, middle }: EdgeProps) {
  const { hands: edit, ground } = useOpenBench();
  const value = own[at].between[side];
  const y = middle + (value / 100) * length;
  const moved = (next: number): Variation[] => {
    const between = own[at].between.map((each, i) => (i === side ? Math.max(-10_000, Math.min(10_000, next)) : each));
    return own.map((each, i) => (i === at ? { ...each, between } : each));
  };
  const from = (start: number, dy: number): number => STEP * Math.round((start + (100 * dy) / length) / STEP);
  const set = (next: number): void =>
    edit.set({ variations: moved(next) }, `${PROPERTIES.across.word} ${side ? "to" : "from"} ${next} %`);
  const handle = useHandle({
    begin: () => value,
    move: (_dx, dy, start) => edit.drag({ variations: moved(from(start, dy)) }),
    done: (_dx, dy, start) => set(from(start, dy)),
    step: (by) => set(value + by * STEP),
    leave: edit.release,
  });
  const colour = ground.night ? "#e6a09a" : "var(--color-madder)";
  return (
    <g
      {...handle}
      role="slider"
      aria-label={`Across on the run, ${side ? "to" : "from"}`}
      aria-valuenow={value}
      aria-valuetext={`${value} % of a piece`}
      className="pointer-events-auto cursor-ns-resize"
    >
      <rect x={LEFT} y={y - 6} width={Math.max(0, end - LEFT)} height={12} fill="transparent" />
      <path d={`M${LEFT} ${y}H${end}`} stroke={colour} strokeWidth="1.2" strokeDasharray="6 4" fill="none" />
      <rect x={end - 4} y={y - 4} width={8} height={8} fill={colour} />
    </g>
  );
}
