import type { Schemas } from "../../shared/api/client";
import { useHandle } from "../../shared/ui/handle";
import type { View } from "../../shared/view/view";
import type { MotifEdit } from "./useMotifEdit";
import { round } from "./view";

type Contour = Schemas["ContourMessage"];

interface Props {
  contours: Contour[];
  part: number;
  edit: MotifEdit;
  view: View;
  contour: number;
  onContour: (contour: number) => void;
  nodes: number[];
  onNodes: (nodes: number[]) => void;
}

const MOST_SHOWN = 1500;

/** A part by its points: flowing ones are round, pointed ones square; a chosen one shows its handles. Press a side twice to add a point. */
export function PointMarks(props: Props) {
  const { contours, part, edit, view } = props;
  const count = contours.reduce((n, c) => n + c.at.length, 0);
  const x = (p: number[]): number => view.x + p[0] * view.scale;
  const y = (p: number[]): number => view.y + p[1] * view.scale;
  const choose = (contour: number, node: number, more: boolean): void => {
    const same = contour === props.contour;
    props.onContour(contour);
    props.onNodes(
      more && same ? (props.nodes.includes(node) ? props.nodes.filter((n) => n !== node) : [...props.nodes, node]) : [node],
    );
  };
  return (
    <g>
      {contours.map((c, k) =>
        c.at.map((_, i) => {
          const j = (i + 1) % c.at.length;
          if (!c.closed && j === 0) return null;
          return (
            <path
              key={`${k}.${i}`}
              data-testid={`side-${k}-${i}`}
              d={`M${x(c.at[i])} ${y(c.at[i])}C${x(c.out[i])} ${y(c.out[i])} ${x(c.into[j])} ${y(c.into[j])} ${x(c.at[j])} ${y(c.at[j])}`}
              fill="none"
              stroke="transparent"
              strokeWidth="9"
              className="pointer-events-auto cursor-copy"
              onPointerDown={(event) => event.stopPropagation()}
              onDoubleClick={() => edit.keep({ op: "add_node", part, contour: k, side: i, at: 0.5 })}
            />
          );
        }),
      )}
      {contours.map((c, k) => (
        <path key={k} d={outline(c, x, y)} fill="none" stroke="var(--color-indigo)" strokeWidth="1" />
      ))}
      {count <= MOST_SHOWN &&
        contours.map((c, k) =>
          c.at.map((_, i) => (
            <Node
              key={`${k}.${i}`}
              {...props}
              own={c}
              k={k}
              i={i}
              x={x}
              y={y}
              chosen={k === props.contour && props.nodes.includes(i)}
              onChoose={(more) => choose(k, i, more)}
            />
          )),
        )}
      {contours[props.contour] &&
        props.nodes.map((i) =>
          (["into", "out"] as const).map((side) => (
            <Pull
              key={`${i}${side}`}
              own={contours[props.contour]}
              i={i}
              side={side}
              part={part}
              contour={props.contour}
              edit={edit}
              view={view}
              x={x}
              y={y}
            />
          )),
        )}
    </g>
  );
}

function outline(c: Contour, x: (p: number[]) => number, y: (p: number[]) => number): string {
  const sides = c.at.map((_, i) => {
    const j = (i + 1) % c.at.length;
    return !c.closed && j === 0
      ? ""
      : `C${x(c.out[i])} ${y(c.out[i])} ${x(c.into[j])} ${y(c.into[j])} ${x(c.at[j])} ${y(c.at[j])}`;
  });
  return `M${x(c.at[0])} ${y(c.at[0])}${sides.join("")}`;
}

interface NodeProps extends Props {
  own: Contour;
  k: number;
  i: number;
  x: (p: number[]) => number;
  y: (p: number[]) => number;
  chosen: boolean;
  onChoose: (more: boolean) => void;
}

function Node({ own, k, i, x, y, chosen, onChoose, edit, part, view, nodes, contour }: NodeProps) {
  const which = chosen && contour === k ? nodes : [i];
  const moved = (dx: number, dy: number) => ({
    op: "move_nodes" as const,
    part,
    contour: k,
    nodes: which,
    dx_mm: round(dx / view.scale),
    dy_mm: round(dy / view.scale),
  });
  const handle = useHandle({
    begin: () => null,
    move: (dx, dy) => edit.show(moved(dx, dy)),
    done: (dx, dy) => edit.keep(moved(dx, dy)),
    step: (by) =>
      edit.keep({ op: "move_nodes", part, contour: k, nodes: which, dx_mm: round(by * 0.1), dy_mm: 0 }, { merge_key: "nodes" }),
    leave: edit.drop,
  });
  const [px, py] = [x(own.at[i]), y(own.at[i])];
  const colour = chosen ? "var(--color-madder)" : "var(--color-indigo)";
  return (
    <g
      {...handle}
      role="slider"
      aria-label={`Point ${i + 1} of outline ${k + 1}, ${own.flowing[i] ? "flowing" : "pointed"}`}
      aria-valuenow={round(own.at[i][0], 2)}
      aria-valuetext={`${own.at[i][0].toFixed(2)}, ${own.at[i][1].toFixed(2)} mm`}
      className="pointer-events-auto cursor-move"
      onPointerDown={(event) => {
        event.stopPropagation();
        if (!chosen || event.shiftKey) onChoose(event.shiftKey);
        handle.onPointerDown(event);
      }}
    >
      <circle cx={px} cy={py} r="9" fill="transparent" />
      {own.flowing[i] ? (
        <circle cx={px} cy={py} r="4" fill={chosen ? colour : "#fff"} stroke={colour} strokeWidth="1.6" />
      ) : (
        <path
          d={`M${px - 4.5} ${py + 3.5}L${px} ${py - 4.5}L${px + 4.5} ${py + 3.5}Z`}
          fill={chosen ? colour : "#fff"}
          stroke={colour}
          strokeWidth="1.6"
        />
      )}
    </g>
  );
}

interface PullProps {
  own: Contour;
  i: number;
  side: "into" | "out";
  part: number;
  contour: number;
  edit: MotifEdit;
  view: View;
  x: (p: number[]) => number;
  y: (p: number[]) => number;
}

function Pull({ own, i, side, part, contour, edit, view, x, y }: PullProps) {
  const place = own[side][i];
  const at = own.at[i];
  const pulled = (from: number[], dx: number, dy: number) => ({
    op: "handle" as const,
    part,
    contour,
    node: i,
    side,
    x_mm: round(from[0] + dx / view.scale),
    y_mm: round(from[1] + dy / view.scale),
  });
  const handle = useHandle({
    begin: () => place,
    move: (dx, dy, from) => edit.show(pulled(from, dx, dy)),
    done: (dx, dy, from) => edit.keep(pulled(from, dx, dy)),
    step: (by) => edit.keep(pulled(place, by * 0.1 * view.scale, 0), { merge_key: "pull" }),
    leave: edit.drop,
  });
  if (!place || !at || Math.hypot(place[0] - at[0], place[1] - at[1]) < 1e-6) return null;
  return (
    <g
      {...handle}
      role="slider"
      aria-label={`Handle ${side === "into" ? "before" : "after"} point ${i + 1}`}
      aria-valuenow={round(place[0], 2)}
      className="pointer-events-auto cursor-move"
      onPointerDown={(event) => {
        event.stopPropagation();
        handle.onPointerDown(event);
      }}
    >
      <path d={`M${x(at)} ${y(at)}L${x(place)} ${y(place)}`} stroke="var(--color-madder)" strokeWidth="1" />
      <circle cx={x(place)} cy={y(place)} r="9" fill="transparent" />
      <path d={`M${x(place) - 4} ${y(place)}h8M${x(place)} ${y(place) - 4}v8`} stroke="var(--color-madder)" strokeWidth="2" />
    </g>
  );
}
