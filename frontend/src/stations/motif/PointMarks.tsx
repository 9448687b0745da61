import type { View } from "../../shared/view/view";
import { OutlineSides } from "./OutlineSides";
import { useOpenMotif } from "./openMotif";
import { PointMark } from "./PointMark";
import { PullMark } from "./PullMark";
import type { Contour } from "./tools/points";
import { useWork } from "./work";

const MOST_SHOWN = 1500;

/** A part by its points: flowing ones are round, pointed ones three-cornered; a chosen one shows its handles. */
export function PointMarks({ contours, view }: { contours: Contour[]; view: View }) {
  const { parts } = useOpenMotif();
  const nodes = useWork((work) => work.nodes);
  const contour = useWork((work) => work.contour);
  const count = contours.reduce((n, c) => n + c.at.length, 0);
  const px = (p: number[]): [number, number] => [view.x + p[0] * view.scale, view.y + p[1] * view.scale];
  const marks = { part: parts[0], scale: view.scale, px };
  return (
    <g>
      <OutlineSides contours={contours} part={parts[0]} px={px} />
      {count <= MOST_SHOWN &&
        contours.map((own, k) => own.at.map((_, i) => <PointMark key={`${k}.${i}`} {...marks} own={own} contour={k} node={i} />))}
      {contours[contour] &&
        nodes.flatMap((node) =>
          (["into", "out"] as const).map((side) => (
            <PullMark key={`${node}${side}`} {...marks} own={contours[contour]} contour={contour} node={node} side={side} />
          )),
        )}
    </g>
  );
}
