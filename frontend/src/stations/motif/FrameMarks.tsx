import type { View } from "../../shared/view/view";
import { useOpenMotif } from "./openMotif";
import { useWork } from "./work";

/** The frame, the base line, and how long the frame is. */
export function FrameMarks({ view, size }: { view: View; size: { width: number } }) {
  const { bench } = useOpenMotif();
  const night = useWork((work) => work.night);
  const { motif } = bench;
  const [x, y] = [view.x, view.y];
  const ink = night ? "#9db9f0" : "var(--color-indigo)";
  const base = y + motif.base_line_mm * view.scale;
  return (
    <g>
      <rect
        x={x}
        y={y}
        width={motif.width_mm * view.scale}
        height={motif.height_mm * view.scale}
        fill="none"
        stroke={ink}
        strokeWidth="1.1"
      />
      <path
        d={`M0 ${base}H${size.width}`}
        stroke={night ? "#e08a7e" : "var(--color-madder)"}
        strokeDasharray="1.5 4"
        strokeWidth="1.4"
      />
      <text
        x={x + (motif.width_mm * view.scale) / 2}
        y={y + motif.height_mm * view.scale + 17}
        textAnchor="middle"
        fontSize="12.5"
        fill={ink}
      >
        {motif.width_mm.toFixed(2)} mm
      </text>
    </g>
  );
}
