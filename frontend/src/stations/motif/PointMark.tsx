import { useOpenMotif } from "./openMotif";
import { chosenNodes, nodesTool, type Contour } from "./tools/points";
import { useTool } from "./tools/tool";
import { round } from "./view";
import { useWork } from "./work";

interface Props {
  own: Contour;
  part: number;
  contour: number;
  node: number;
  scale: number;
  px: (place: number[]) => [number, number];
}

/** A point of an outline: flowing ones are round, pointed ones three-cornered. */
export function PointMark({ own, part, contour, node: i, scale, px: toPx }: Props) {
  const { edit } = useOpenMotif();
  const nodes = useWork((work) => work.nodes);
  const same = useWork((work) => work.contour === contour);
  const choose = useWork((work) => work.chooseNodes);
  const chosen = same && nodes.includes(i);
  const handle = useTool(nodesTool({ part, contour }, chosen ? nodes : [i], scale), edit);
  const [px, py] = toPx(own.at[i]);
  const colour = chosen ? "var(--color-madder)" : "var(--color-indigo)";
  return (
    <g
      {...handle}
      role="slider"
      aria-label={`Point ${i + 1} of outline ${contour + 1}, ${own.flowing[i] ? "flowing" : "pointed"}`}
      aria-valuenow={round(own.at[i][0], 2)}
      aria-valuetext={`${own.at[i][0].toFixed(2)}, ${own.at[i][1].toFixed(2)} mm`}
      className="pointer-events-auto cursor-move"
      onPointerDown={(event) => {
        event.stopPropagation();
        if (!chosen || event.shiftKey) choose(chosenNodes(nodes, i, event.shiftKey && same), contour);
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
