import { useOpenBench } from "./openBench";
import type { BenchHeader } from "./types";
import { usePitchHandle } from "./usePitchHandle";

interface Props {
  /** The middles of two neighbours, the tape's top and the run's line, px. */
  from: number;
  to: number;
  top: number;
  middle: number;
  scale: number;
  header: BenchHeader;
  jointed: boolean;
}

/** The tape from one piece to the next: pulled, it sets the gap, or moves the joints. */
export function PitchMark({ from, to, top, middle, scale, header, jointed }: Props) {
  const { ground } = useOpenBench();
  const { night, glass } = ground;
  const ink = night ? "#ffffff" : "var(--color-loden)";
  const pitch = usePitchHandle(header, scale, jointed);
  return (
    <g>
      <path d={`M${from} ${top + 26}V${middle}M${to} ${top + 26}V${middle}`} stroke={ink} strokeDasharray="1.5 3" fill="none" />
      <rect x={from} y={top + 3} width={Math.max(1, to - from)} height={20} fill="var(--color-weld)" />
      <path d={tapeTicks(from, to, top + 23)} stroke="#5b4306" strokeWidth="1" fill="none" />
      <rect x={from - 3} y={top - 1} width={6} height={28} fill={ink} />
      <g
        {...pitch}
        role="slider"
        aria-label="Pitch"
        aria-valuenow={Number(header.pitch_mm.toFixed(2))}
        aria-valuetext={`${header.pitch_mm.toFixed(2)} mm`}
        className="pointer-events-auto cursor-ew-resize"
      >
        <rect x={to - 12} y={top - 8} width={24} height={42} fill="transparent" />
        <rect x={to - 4} y={top - 1} width={8} height={28} rx={1.5} fill="var(--color-madder)" />
      </g>
      <text
        x={to + 12}
        y={top + 18}
        className="font-bold"
        fill={night ? "#ffb9ae" : "var(--color-madder)"}
        fontSize="13.5"
        stroke={glass}
        strokeWidth="4"
        strokeLinejoin="round"
        style={{ paintOrder: "stroke" }}
        data-testid="pitch-figure"
      >
        pitch {header.pitch_mm.toFixed(2)} mm
      </text>
    </g>
  );
}

function tapeTicks(from: number, to: number, y: number): string {
  const count = Math.min(40, Math.max(2, Math.round((to - from) / 6)));
  return Array.from({ length: count - 1 }, (_, i) => {
    const x = from + ((i + 1) * (to - from)) / count;
    return `M${x.toFixed(1)} ${y}v${(i + 1) % 5 ? -6 : -11}`;
  }).join("");
}
