import type { MotifBench } from "../../shared/api/client";
import { useHandle } from "../../shared/ui/handle";
import type { View } from "../../shared/view/view";
import type { MotifEdit } from "./useMotifEdit";
import { round, unionBox } from "./view";

interface Props {
  bench: MotifBench;
  edit: MotifEdit;
  view: View;
  parts: number[];
}

/** The chosen parts: pull them to move, the arrow to size, the ring to turn. */
export function PartMarks({ bench, edit, view, parts }: Props) {
  const own = parts.flatMap((i) => bench.motif.shapes[i] ?? []);
  const box = own.length ? unionBox(own.map((s) => s.box)) : ([0, 0, 0, 0] as const);
  const [x0, y0, x1, y1] = [
    view.x + box[0] * view.scale,
    view.y + box[1] * view.scale,
    view.x + box[2] * view.scale,
    view.y + box[3] * view.scale,
  ];
  const [cx, cy] = [(x0 + x1) / 2, (y0 + y1) / 2];

  const moved = (dx: number, dy: number) => ({
    op: "move" as const,
    parts,
    dx_mm: round(dx / view.scale),
    dy_mm: round(dy / view.scale),
  });
  const moving = useHandle({
    begin: () => null,
    move: (dx, dy) => edit.show(moved(dx, dy)),
    done: (dx, dy) => edit.keep(moved(dx, dy)),
    step: (by) => edit.keep({ op: "move", parts, dx_mm: round(by * 0.1), dy_mm: 0 }, { merge_key: "nudge" }),
    leave: edit.drop,
  });
  const sized = (at: { w: number; h: number }, dx: number, dy: number, fine: boolean) => {
    const [sx, sy] = [(at.w + 2 * dx) / at.w, (at.h + 2 * dy) / at.h];
    const even = Math.max(0.02, Math.abs(dx) > Math.abs(dy) ? sx : sy);
    return {
      op: "transform" as const,
      parts,
      turn_deg: 0,
      about_mm: null,
      scale_x: round(fine ? Math.max(0.02, sx) : even, 4),
      scale_y: round(fine ? Math.max(0.02, sy) : even, 4),
    };
  };
  const sizing = useHandle({
    begin: () => ({ w: Math.max(8, x1 - x0), h: Math.max(8, y1 - y0) }),
    move: (dx, dy, at, fine) => edit.show(sized(at, dx, dy, fine)),
    done: (dx, dy, at, fine) => edit.keep(sized(at, dx, dy, fine), { label: "size of a part" }),
    step: (by) =>
      edit.keep(
        { op: "transform", parts, turn_deg: 0, about_mm: null, scale_x: 1 + by / 100, scale_y: 1 + by / 100 },
        { merge_key: "size", label: "size of a part" },
      ),
    leave: edit.drop,
  });
  const turned = (at: { dx: number; dy: number }, dx: number, dy: number, fine: boolean) => {
    const angle = ((Math.atan2(at.dy + dy, at.dx + dx) - Math.atan2(at.dy, at.dx)) * 180) / Math.PI;
    return {
      op: "transform" as const,
      parts,
      scale_x: 1,
      scale_y: 1,
      about_mm: null,
      turn_deg: fine ? round(angle, 1) : Math.round(angle / 5) * 5,
    };
  };
  const ring = { x: cx, y: y0 - 24 };
  const turning = useHandle({
    begin: () => ({ dx: ring.x - cx, dy: ring.y - cy }),
    move: (dx, dy, at, fine) => edit.show(turned(at, dx, dy, fine)),
    done: (dx, dy, at, fine) => edit.keep(turned(at, dx, dy, fine), { label: "turn a part" }),
    step: (by) =>
      edit.keep(
        { op: "transform", parts, scale_x: 1, scale_y: 1, about_mm: null, turn_deg: by * 5 },
        { merge_key: "turn", label: "turn a part" },
      ),
    leave: edit.drop,
  });
  if (!own.length) return null;
  return (
    <g>
      <g
        {...moving}
        role="slider"
        aria-label="Move the chosen parts"
        aria-valuenow={round((box[0] + box[2]) / 2, 2)}
        className="pointer-events-auto cursor-move"
        onPointerDown={(event) => {
          if (event.shiftKey) return; // Shift adds to or takes from what is chosen
          event.stopPropagation();
          moving.onPointerDown(event);
        }}
      >
        <rect
          x={x0 - 4}
          y={y0 - 4}
          width={x1 - x0 + 8}
          height={y1 - y0 + 8}
          fill="transparent"
          stroke="var(--color-indigo)"
          strokeWidth="1.3"
          strokeDasharray="6 3"
        />
      </g>
      <g
        {...sizing}
        role="slider"
        aria-label="Size of the chosen parts"
        aria-valuenow={100}
        className="pointer-events-auto cursor-nwse-resize"
        onPointerDown={(event) => {
          event.stopPropagation();
          sizing.onPointerDown(event);
        }}
      >
        <rect x={x1 - 4} y={y1 - 4} width={24} height={24} fill="transparent" />
        <path
          d={`M${x1 + 2} ${y1 + 2}l13 13m0 -7v7h-7`}
          fill="none"
          stroke="var(--color-indigo)"
          strokeWidth="2.2"
          strokeLinecap="round"
        />
      </g>
      <g
        {...turning}
        role="slider"
        aria-label="Turn the chosen parts"
        aria-valuenow={0}
        className="pointer-events-auto cursor-grab"
        onPointerDown={(event) => {
          event.stopPropagation();
          turning.onPointerDown(event);
        }}
      >
        <path
          d={`M${cx - 14} ${ring.y + 8}Q${cx} ${ring.y - 4} ${cx + 14} ${ring.y + 8}`}
          fill="none"
          stroke="var(--color-indigo)"
          strokeDasharray="2 4"
        />
        <circle cx={ring.x} cy={ring.y} r="12" fill="transparent" />
        <circle cx={ring.x} cy={ring.y} r="5" fill="#fff" stroke="var(--color-indigo)" strokeWidth="2" />
      </g>
    </g>
  );
}
