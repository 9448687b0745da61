import { useHandle } from "../../shared/ui/handle";
import { useLaidBench, useOpenBench } from "./openBench";

/** The arrow at the run's end, as high as a piece: pulled, it sets the size. */
export function SizeMark({ end, half, middle }: { end: number; half: number; middle: number }) {
  const { hands: edit, ground } = useOpenBench();
  const { shown: settings, said } = useLaidBench();
  const { night } = ground;
  const sizeFrom = (at: { size: number; half: number }, dy: number): number =>
    Number(Math.max(1, Math.min(10_000, (at.size * Math.max(3, at.half + dy)) / at.half)).toFixed(1));
  const sizing = useHandle({
    begin: () => ({ size: settings.spacing.size_pct ?? 100, half }),
    move: (_dx, dy, at) => edit.drag({ spacing: { size_pct: sizeFrom(at, dy) } }),
    done: (_dx, dy, at) => edit.set({ spacing: { size_pct: sizeFrom(at, dy) } }, `size to ${sizeFrom(at, dy)} %`),
    step: (by) => {
      const size_pct = Math.max(1, (said.spacing.size_pct ?? 100) + by);
      edit.set({ spacing: { size_pct } }, `size to ${size_pct} %`);
    },
    leave: edit.release,
  });
  return (
    <>
      <g
        {...sizing}
        role="slider"
        aria-label="Size on the run"
        aria-valuenow={settings.spacing.size_pct}
        aria-valuetext={`${settings.spacing.size_pct} %`}
        className="pointer-events-auto cursor-ns-resize"
      >
        <rect x={end - 14} y={middle - half - 6} width={28} height={2 * half + 12} fill="transparent" />
        <path
          d={`M${end} ${middle - half}v${2 * half}m-5 -7l5 7l5 -7M${end - 5} ${middle - half + 7}l5 -7l5 7`}
          fill="none"
          stroke={night ? "#9db9f0" : "var(--color-indigo)"}
          strokeWidth="2"
          strokeLinecap="round"
        />
      </g>
      <text x={end + 14} y={middle + 4} fill={night ? "#9db9f0" : "var(--color-indigo)"} fontSize="13" className="font-semibold">
        size {Number((settings.spacing.size_pct ?? 100).toFixed(1))} %
      </text>
    </>
  );
}
