import { useRef, useState } from "react";
import type { Line, Source } from "../../shared/api/client";
import type { View } from "../../shared/view/view";
import { useLineHands } from "./useLineHands";

interface PointsOf {
  kind: "points";
  points: [number, number][];
  flowing: boolean[];
  closed: boolean;
  stroke?: object | null;
}

interface Props {
  line: Line;
  view: View;
  toSheet: (event: React.PointerEvent) => [number, number];
}

/** The points of a line drawn by points or by hand: drag, step with arrow keys, space for pointed, Delete. */
export function Handles({ line, view, toSheet }: Props) {
  const { draft, reshape } = useLineHands();
  const [moving, setMoving] = useState<PointsOf | null>(null);
  const dragged = useRef(false);
  if (line.source.kind !== "points") return null;
  const source = moving ?? (line.source as unknown as PointsOf);

  const put = (i: number, to: [number, number]): PointsOf => ({
    ...source,
    points: source.points.map((p, j) => (j === i ? to : p)),
  });
  const keep = (next: PointsOf, label: string): void => {
    setMoving(null);
    // its points are no longer the hand's
    reshape(line, { ...next, stroke: null } as unknown as Source, `${label} of ${line.name}`);
  };
  const turn = (i: number): void =>
    keep(
      { ...source, flowing: source.flowing.map((f, j) => (j === i ? !f : f)) },
      source.flowing[i] ? "pointed point" : "flowing point",
    );
  const onKeyDown = (event: React.KeyboardEvent, i: number): void => {
    const step = event.shiftKey ? 10 : 1;
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key];
    if (by) keep(put(i, [source.points[i][0] + by[0], source.points[i][1] + by[1]]), "move a point");
    else if (event.key === " ") turn(i);
    else if (event.key === "Delete" && source.points.length > 2) {
      const without = <T,>(list: T[]): T[] => list.filter((_, j) => j !== i);
      keep({ ...source, points: without(source.points), flowing: without(source.flowing) }, "remove a point");
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full">
      {source.points.map(([x, y], i) => {
        const [cx, cy] = [x * view.scale + view.x, y * view.scale + view.y];
        const shared = {
          tabIndex: 0,
          role: "button",
          "aria-label": `Point ${i + 1}, ${source.flowing[i] ? "flowing" : "pointed"}, ${x.toFixed(1)}, ${y.toFixed(1)} mm`,
          className: "pointer-events-auto cursor-move",
          fill: "#fff",
          stroke: "var(--color-indigo)",
          strokeWidth: 1.8,
          onKeyDown: (event: React.KeyboardEvent) => onKeyDown(event, i),
          onDoubleClick: () => turn(i),
          onPointerDown: (event: React.PointerEvent) => {
            event.stopPropagation();
            dragged.current = false;
            (event.currentTarget as Element).setPointerCapture(event.pointerId);
          },
          onPointerMove: (event: React.PointerEvent) => {
            event.stopPropagation();
            if (!(event.currentTarget as Element).hasPointerCapture(event.pointerId)) return;
            dragged.current = true;
            const next = put(i, toSheet(event));
            setMoving(next);
            draft({ line_id: line.id, source: next as unknown as Source });
          },
          onPointerUp: (event: React.PointerEvent) => {
            event.stopPropagation();
            if (dragged.current && moving) keep(moving, "move a point");
          },
        };
        return source.flowing[i] ? (
          <circle key={i} {...shared} cx={cx} cy={cy} r="5" />
        ) : (
          <rect key={i} {...shared} x={cx - 4.5} y={cy - 4.5} width="9" height="9" />
        );
      })}
    </svg>
  );
}
