import { useOpenMotif } from "./openMotif";
import type { Contour } from "./tools/points";

interface Props {
  contours: Contour[];
  part: number;
  px: (place: number[]) => [number, number];
}

/** The outlines between the points; a side that is pressed twice gets one more. */
export function OutlineSides({ contours, part, px }: Props) {
  const { edit } = useOpenMotif();
  return (
    <>
      {contours.map((own, k) =>
        own.at.map((_, i) => {
          const side = sideOf(own, i, px);
          return (
            side && (
              <path
                key={`${k}.${i}`}
                data-testid={`side-${k}-${i}`}
                d={`M${px(own.at[i]).join(" ")}${side}`}
                fill="none"
                stroke="transparent"
                strokeWidth="9"
                className="pointer-events-auto cursor-copy"
                onPointerDown={(event) => event.stopPropagation()}
                onDoubleClick={() => edit.keep({ op: "add_node", part, contour: k, side: i, at: 0.5 })}
              />
            )
          );
        }),
      )}
      {contours.map((own, k) => (
        <path
          key={k}
          d={`M${px(own.at[0]).join(" ")}${own.at.map((_, i) => sideOf(own, i, px)).join("")}`}
          fill="none"
          stroke="var(--color-indigo)"
          strokeWidth="1"
        />
      ))}
    </>
  );
}

/** The side after a point as SVG path data; nothing after the last point of an open outline. */
function sideOf({ at, out, into, closed }: Contour, i: number, px: Props["px"]): string {
  const j = (i + 1) % at.length;
  return !closed && j === 0 ? "" : `C${[out[i], into[j], at[j]].flatMap(px).join(" ")}`;
}
