import type { View } from "../../shared/view/view";
import { useOpenMotif } from "./openMotif";
import { cutsOf, cutTool } from "./tools/cut";
import { useTool } from "./tools/tool";
import { round } from "./view";

interface Props {
  i: 0 | 1;
  view: View;
  /** From where to where it hangs, px. */
  top: number;
  foot: number;
  edges: number[];
}

/** One of the two tapes that cut the motif. */
export function Tape({ i, view, top, foot, edges }: Props) {
  const { bench, edit } = useOpenMotif();
  const cuts = cutsOf(bench.motif);
  const name = i ? "Right cut" : "Left cut";
  const place = view.x + cuts[i] * view.scale;
  const tape = useTool(cutTool(i, cuts, edges, view.scale), edit);
  const ticks = Array.from(
    { length: Math.floor((foot - top) / 12) },
    (_, k) => `M${place - 5} ${top + 8 + k * 12}h${k % 5 ? 4 : 7}`,
  ).join("");
  return (
    <g
      {...tape}
      role="slider"
      aria-label={name}
      aria-valuenow={round(cuts[i], 2)}
      aria-valuetext={`${cuts[i].toFixed(2)} mm`}
      className="pointer-events-auto cursor-ew-resize"
      opacity={bench.motif.cuts_mm ? 1 : 0.45}
    >
      <rect x={place - 11} y={top - 14} width={22} height={foot - top + 14} fill="transparent" />
      <rect x={place - 5} y={top} width={10} height={foot - top} fill="var(--color-weld)" opacity=".88" />
      <path d={ticks} stroke="#5b4306" strokeWidth="1" />
      <path d={`M${place} ${top}V${foot}`} stroke="#5b4306" strokeWidth=".8" />
      <rect x={place - 29} y={top - 11} width={58} height={20} rx={2} fill="var(--color-loden)" />
      <text x={place} y={top + 3.5} textAnchor="middle" fontSize="12" fill="#fff" className="font-semibold">
        {cuts[i].toFixed(1)} mm
      </text>
    </g>
  );
}
