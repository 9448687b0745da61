import type { Line, Source } from "../../shared/api/client";
import type { View } from "../../shared/view/view";
import { useDesk } from "./desk";
import { LinePoint } from "./LinePoint";
import { useNear } from "./useNear";
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
}

/** The points of a line drawn by points or by hand: drag, step with arrow keys, space for pointed, Delete. */
export function Handles({ line, view }: Props) {
  const { draft, reshape } = useLineHands();
  const held = useDesk(({ draft }) => (draft?.line_id === line.id && draft.source.kind === "points" ? draft.source : null));
  const source = (held ?? line.source) as unknown as PointsOf;
  const points = line.source.kind === "points" ? source.points : [];
  const places = points.map(([x, y]): [number, number] => [x * view.scale + view.x, y * view.scale + view.y]);
  const [frame, near] = useNear(places);

  const put = (i: number, to: [number, number]): PointsOf => ({ ...source, points: points.map((p, j) => (j === i ? to : p)) });
  const keep = (next: PointsOf, label: string, kind?: string): void =>
    // its points are no longer the hand's
    reshape(line, { ...next, stroke: null } as unknown as Source, `${label} of ${line.name}`, kind);
  const turn = (i: number): void =>
    keep(
      { ...source, flowing: source.flowing.map((f, j) => (j === i ? !f : f)) },
      source.flowing[i] ? "pointed point" : "flowing point",
    );
  const without = <T,>(list: T[], i: number): T[] => list.filter((_, j) => j !== i);
  const remove = (i: number): void => {
    if (points.length > 2) keep({ ...source, points: without(points, i), flowing: without(source.flowing, i) }, "remove a point");
  };
  return (
    <svg ref={frame} className="group pointer-events-none absolute inset-0 h-full w-full">
      {places.map((place, i) => (
        <LinePoint
          key={i}
          name={`Point ${i + 1}`}
          at={points[i]}
          flowing={source.flowing[i]}
          place={place}
          scale={view.scale}
          near={near.has(i)}
          onDrag={(to) => draft({ line_id: line.id, source: put(i, to) as unknown as Source })}
          onPut={(to, stepped) => keep(put(i, to), "move a point", stepped ? `point ${i}` : undefined)}
          onLeave={() => draft(null)}
          onTurn={() => turn(i)}
          onRemove={() => remove(i)}
        />
      ))}
    </svg>
  );
}
