import { useState } from "react";
import type { Source } from "../../shared/api/client";
import { lineThrough, NO_POINTS, pressed, withoutLast, withPoint, type Points } from "./tools/byPoints";
import { useDesk } from "./desk";
import type { Draft, Place } from "./tools/held";

/** A line that is set point by point: it is told as a draft while it grows, and drawn when it ends. */
export function useByPoints(scale: number, onDraft: (draft: Draft) => void, onDraw: (source: Source) => void) {
  const [begun, setBegun] = useState<Points>(NO_POINTS);
  const pointed = useDesk((desk) => desk.pointed);
  const tell = (points: Points): void => {
    const source = lineThrough(points);
    onDraft(source && { line_id: null, source });
  };
  const grow = (points: Points): void => {
    setBegun(points);
    tell(points);
  };
  const finish = (closed: boolean): void => {
    setBegun(NO_POINTS);
    const source = lineThrough(begun, closed);
    if (source) onDraw(source);
    else onDraft(null);
  };
  return {
    begun,
    finish,
    press: (place: Place): void => {
      const next = pressed(begun, place, scale, !pointed);
      if ("begun" in next) grow(next.begun);
      else finish(next.closed);
    },
    /** The line as it would be with a point where the pointer is. */
    point: (place: Place): void => {
      if (begun.points.length) tell(withPoint(begun, place, !pointed));
    },
    takeBack: (): void => {
      if (begun.points.length) grow(withoutLast(begun));
    },
    giveUp: (): void => setBegun(NO_POINTS),
  };
}

export type ByPoints = ReturnType<typeof useByPoints>;
