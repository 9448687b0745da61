import type { Source } from "../../../shared/api/client";
import { apart, type Draft, type Held, type Place } from "./held";

const APART_PX = 1.5; // points closer than this say nothing of the hand
const LEAST_ROUND = 3; // times as far as it closes from; a shorter way goes round nothing

/**
 * A line is pulled across the sheet; a press that goes nowhere draws none. One that comes back to within `closing` mm of its start
 * closes.
 */
export function byHand(
  from: Place,
  scale: number,
  closing: number,
  onDraft: (draft: Draft) => void,
  onDraw: (source: Source) => void,
): Held {
  const points = [from];
  let way = 0;
  const source = (straight: boolean): Source => {
    const closed = !straight && way > LEAST_ROUND * closing && apart(points[points.length - 1], from) <= closing;
    return { kind: "hand", points: [...points], straight, closed };
  };
  return {
    move: ({ along, straight }) => {
      for (const place of along) {
        const step = apart(place, points[points.length - 1]);
        if (step * scale < APART_PX) continue;
        way += step;
        points.push(place);
      }
      if (points.length > 1) onDraft({ line_id: null, source: source(straight) });
    },
    up: ({ straight }) => (points.length > 1 ? onDraw(source(straight)) : onDraft(null)),
  };
}
