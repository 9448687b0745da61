import type { MotifBench } from "../../shared/api/client";
import { useHandle } from "../../shared/ui/handle";
import type { View } from "../../shared/view/view";
import type { MotifEdit } from "./useMotifEdit";
import { round, snapped } from "./view";

interface Props {
  bench: MotifBench;
  edit: MotifEdit;
  view: View;
  size: { width: number; height: number };
}

const SNAP_PX = 6;
const RAIL = 34;

/** What cuts and frames the motif, to be dragged: two tapes on a rail, the base line, both joints, the frame's sides. */
export function CutMarks({ bench, edit, view, size }: Props) {
  const { motif } = bench;
  const cuts: [number, number] = motif.cuts_mm ? [motif.cuts_mm[0], motif.cuts_mm[1]] : [0, motif.width_mm];
  const reach = SNAP_PX / view.scale;
  const still = (edit.standing ?? bench).motif; // what is in the hand snaps to what is kept
  const edgesX = [0, still.width_mm, ...still.shapes.flatMap((s) => [s.box[0], s.box[2]])];
  const edgesY = [
    0,
    still.height_mm / 2,
    still.height_mm,
    ...still.shapes.flatMap((s) => [s.box[1], (s.box[1] + s.box[3]) / 2, s.box[3]]),
  ];
  const x = (mm: number): number => view.x + mm * view.scale;
  const y = (mm: number): number => view.y + mm * view.scale;
  if (size.height < 100) return null;
  return (
    <g>
      <path d={`M0 ${RAIL}H${size.width}`} stroke="var(--color-moss)" strokeWidth="1.4" />
      {([0, 1] as const).map((i) => (
        <Tape
          key={i}
          i={i}
          cuts={cuts}
          set={motif.cuts_mm !== null}
          place={x(cuts[i])}
          foot={size.height - 34}
          edit={edit}
          scale={view.scale}
          snap={(mm) => snapped(mm, edgesX, reach)}
        />
      ))}
      <Side bench={bench} edit={edit} view={view} side="left_mm" edges={edgesX} />
      <Side bench={bench} edit={edit} view={view} side="right_mm" edges={edgesX} />
      <Side bench={bench} edit={edit} view={view} side="top_mm" edges={edgesY} />
      <Side bench={bench} edit={edit} view={view} side="bottom_mm" edges={edgesY} />
      <BaseLine bench={bench} edit={edit} view={view} edges={edgesY} />
      {([0, 1] as const).map((i) => (
        <Joint key={i} i={i} bench={bench} edit={edit} view={view} x={x} y={y} />
      ))}
    </g>
  );
}

interface TapeProps {
  i: 0 | 1;
  cuts: [number, number];
  set: boolean;
  place: number;
  foot: number;
  edit: MotifEdit;
  scale: number;
  snap: (mm: number) => number;
}

function Tape({ i, cuts, set, place, foot, edit, scale, snap }: TapeProps) {
  const name = i ? "Right cut" : "Left cut";
  const moved = (from: number, dx: number, fine: boolean) => {
    const mm = round(fine ? from + dx / scale : snap(from + dx / scale), 2);
    return { op: "cuts" as const, cuts_mm: i ? [cuts[0], Math.max(mm, cuts[0] + 0.1)] : [Math.min(mm, cuts[1] - 0.1), cuts[1]] };
  };
  const tape = useHandle({
    begin: () => cuts[i],
    move: (dx, _dy, from, fine) => edit.show(moved(from, dx, fine)),
    done: (dx, _dy, from, fine) =>
      edit.keep(moved(from, dx, fine), { label: `${name.toLowerCase()} at ${moved(from, dx, fine).cuts_mm[i].toFixed(2)} mm` }),
    step: (by) => edit.keep(moved(cuts[i], by * 0.1 * scale, true), { merge_key: `cut ${i}` }),
    leave: edit.drop,
  });
  const ticks = Array.from(
    { length: Math.floor((foot - RAIL) / 12) },
    (_, k) => `M${place - 5} ${RAIL + 8 + k * 12}h${k % 5 ? 4 : 7}`,
  ).join("");
  return (
    <g
      {...tape}
      role="slider"
      aria-label={name}
      aria-valuenow={round(cuts[i], 2)}
      aria-valuetext={`${cuts[i].toFixed(2)} mm`}
      className="pointer-events-auto cursor-ew-resize"
      opacity={set ? 1 : 0.45}
    >
      <rect x={place - 11} y={RAIL - 14} width={22} height={foot - RAIL + 14} fill="transparent" />
      <rect x={place - 5} y={RAIL} width={10} height={foot - RAIL} fill="var(--color-weld)" opacity=".88" />
      <path d={ticks} stroke="#5b4306" strokeWidth="1" />
      <path d={`M${place} ${RAIL}V${foot}`} stroke="#5b4306" strokeWidth=".8" />
      <rect x={place - 29} y={RAIL - 11} width={58} height={20} rx={2} fill="var(--color-loden)" />
      <text x={place} y={RAIL + 3.5} textAnchor="middle" fontSize="12" fill="#fff" className="font-semibold">
        {cuts[i].toFixed(1)} mm
      </text>
    </g>
  );
}

function BaseLine({ bench, edit, view, edges }: { bench: MotifBench; edit: MotifEdit; view: View; edges: number[] }) {
  const base = bench.motif.base_line_mm;
  const y = view.y + base * view.scale;
  const at = (from: number, dy: number, fine: boolean) => {
    const mm = from + dy / view.scale;
    return { op: "base_line" as const, base_line_mm: round(fine ? mm : snapped(mm, edges, SNAP_PX / view.scale), 2) };
  };
  const handle = useHandle({
    begin: () => base,
    move: (_dx, dy, from, fine) => edit.show(at(from, dy, fine)),
    done: (_dx, dy, from, fine) =>
      edit.keep(at(from, dy, fine), { label: `base line at ${at(from, dy, fine).base_line_mm.toFixed(2)} mm` }),
    step: (by) => edit.keep({ op: "base_line", base_line_mm: round(base - by * 0.1, 2) }, { merge_key: "base" }),
    leave: edit.drop,
  });
  return (
    <g
      {...handle}
      role="slider"
      aria-label="Base line"
      aria-valuenow={round(base, 2)}
      aria-valuetext={`${base.toFixed(2)} mm from the top`}
      className="pointer-events-auto cursor-ns-resize"
    >
      <rect x={12} y={y - 12} width={142} height={24} rx={2} fill="var(--color-madder)" />
      <text x={22} y={y + 4.5} fill="#fff" fontSize="12.5" className="font-semibold">
        base line {base.toFixed(2)} mm
      </text>
    </g>
  );
}

function Joint({
  i,
  bench,
  edit,
  view,
  x,
  y,
}: {
  i: 0 | 1;
  bench: MotifBench;
  edit: MotifEdit;
  view: View;
  x: (mm: number) => number;
  y: (mm: number) => number;
}) {
  const { motif } = bench;
  const [from, to] = motif.cuts_mm ?? [0, motif.width_mm];
  const joints = motif.joints_mm ?? [
    [from, motif.base_line_mm],
    [to, motif.base_line_mm],
  ];
  const moved = (at: number[], dx: number, dy: number) => {
    const next = joints.map((j, k) => (k === i ? [round(at[0] + dx / view.scale, 2), round(at[1] + dy / view.scale, 2)] : j));
    return { op: "joints" as const, joints_mm: next };
  };
  const handle = useHandle({
    begin: () => joints[i],
    move: (dx, dy, at) => edit.show(moved(at, dx, dy)),
    done: (dx, dy, at) => edit.keep(moved(at, dx, dy), { label: `${i ? "right" : "left"} joint` }),
    step: (by) => edit.keep(moved(joints[i], by * 0.1 * view.scale, 0), { merge_key: `joint ${i}` }),
    leave: edit.drop,
  });
  return (
    <g
      {...handle}
      role="slider"
      aria-label={i ? "Right joint" : "Left joint"}
      aria-valuenow={round(joints[i][0], 2)}
      aria-valuetext={`${joints[i][0].toFixed(2)}, ${joints[i][1].toFixed(2)} mm`}
      className="pointer-events-auto cursor-move"
    >
      <circle cx={x(joints[i][0])} cy={y(joints[i][1])} r="11" fill="transparent" />
      <circle cx={x(joints[i][0])} cy={y(joints[i][1])} r="6" fill="#fff" stroke="var(--color-madder)" strokeWidth="2" />
    </g>
  );
}

type FrameSide = "left_mm" | "top_mm" | "right_mm" | "bottom_mm";

function Side({
  bench,
  edit,
  view,
  side,
  edges,
}: {
  bench: MotifBench;
  edit: MotifEdit;
  view: View;
  side: FrameSide;
  edges: number[];
}) {
  const { motif } = bench;
  const upright = side === "left_mm" || side === "right_mm";
  const frame = { left_mm: 0, top_mm: 0, right_mm: motif.width_mm, bottom_mm: motif.height_mm };
  const moved = (from: typeof frame, dx: number, dy: number, fine: boolean) => {
    const mm = from[side] + (upright ? dx : dy) / view.scale;
    return { op: "frame" as const, ...from, [side]: round(fine ? mm : snapped(mm, edges, SNAP_PX / view.scale), 2) };
  };
  const handle = useHandle({
    begin: () => frame,
    move: (dx, dy, from, fine) => edit.show(moved(from, dx, dy, fine)),
    done: (dx, dy, from, fine) => edit.keep(moved(from, dx, dy, fine), { label: `frame, ${side.replace("_mm", "")}` }),
    step: (by) => edit.keep(moved(frame, by * 0.1 * view.scale, -by * 0.1 * view.scale, true), { merge_key: `frame ${side}` }),
    leave: edit.drop,
  });
  const x = view.x + (side === "right_mm" ? motif.width_mm : side === "left_mm" ? 0 : motif.width_mm / 2) * view.scale;
  const y = view.y + (side === "bottom_mm" ? motif.height_mm : side === "top_mm" ? 0 : motif.height_mm / 4) * view.scale;
  return (
    <g
      {...handle}
      role="slider"
      aria-label={`Frame, ${side.replace("_mm", "")}`}
      aria-valuenow={round(frame[side], 2)}
      className={`pointer-events-auto ${upright ? "cursor-ew-resize" : "cursor-ns-resize"}`}
    >
      <rect x={x - 10} y={y - 10} width={20} height={20} fill="transparent" />
      <path
        d={upright ? `M${x - 3} ${y - 7}v14M${x + 3} ${y - 7}v14` : `M${x - 7} ${y - 3}h14M${x - 7} ${y + 3}h14`}
        stroke="var(--color-indigo)"
        strokeWidth="2"
        strokeLinecap="round"
      />
    </g>
  );
}
