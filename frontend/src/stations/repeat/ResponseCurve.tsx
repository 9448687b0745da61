import { useState } from "react";
import { ResponseKnob } from "./ResponseKnob";

import { PAD, SIDE, STEP, x, y } from "./responseSquare";
const STRAIGHT = [
  [0, 0],
  [0.5, 0.5],
  [1, 1],
];

interface Props {
  label: string;
  points: number[][] | null;
  onSet: (points: number[][] | null) => void;
}

/** How a property goes between its values as its source goes from least to most: three points to drag, straight by double press. */
export function ResponseCurve({ label, points, onSet }: Props) {
  const kept = points ?? STRAIGHT;
  const [held, setHeld] = useState<number[][] | null>(null);
  const shown = held ?? kept;
  return (
    <svg
      width={SIDE + 2 * PAD}
      height={SIDE + 2 * PAD}
      role="group"
      aria-label={label}
      className="shrink-0"
      onDoubleClick={() => onSet(null)}
    >
      <rect x={PAD} y={PAD} width={SIDE} height={SIDE} fill="none" stroke="var(--color-rule)" />
      <path d={pathOf(shown)} fill="none" stroke="var(--color-madder)" strokeWidth="1.6" />
      {shown.map((point, i) => (
        <ResponseKnob
          key={i}
          name={`${label}, point ${i + 1}`}
          at={point}
          onDrag={(next) => setHeld(moved(kept, i, next))}
          onLeave={() => setHeld(null)}
          onSet={(next) => {
            setHeld(null);
            onSet(moved(kept, i, next));
          }}
        />
      ))}
    </svg>
  );
}

/** The points with one moved: the first and last keep to their sides, one between to its neighbours. */
function moved(points: number[][], i: number, [u, v]: number[]): number[][] {
  const last = points.length - 1;
  const low = i ? points[i - 1][0] + STEP : 0;
  const high = i < last ? points[i + 1][0] - STEP : 1;
  const share = i === 0 ? 0 : i === last ? 1 : Math.min(high, Math.max(low, u));
  const way = Math.min(1, Math.max(0, v));
  return points.map((point, k) => (k === i ? [Number(share.toFixed(3)), Number(way.toFixed(3))] : point));
}

/** A hint of the curve, drawn straight from point to point; the pieces show how it goes. */
const pathOf = (points: number[][]): string => points.map((point, i) => `${i ? "L" : "M"}${x(point)} ${y(point)}`).join("");
