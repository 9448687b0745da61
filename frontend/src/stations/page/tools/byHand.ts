import type { Source } from "../../../shared/api/client";
import { apart, type Draft, type Held, type Place } from "./held";

const APART_PX = 1.5; // points closer than this say nothing of the hand
const STANDARD = 35; // per cent of smoothing; common practice: an ordinary hand comes out without its tremor
const SEEN_PX = 0.5; // how closely a line is fitted: to what the zoom can show
const LEAST_ROUND = 3; // times as far as it closes from; a shorter way goes round nothing

/**
 * A line is pulled across the sheet; a press that goes nowhere draws none. One that comes back to within `closing` mm of its start
 * closes.
 */
export function byHand(
  { place: from, time: begun }: { place: Place; time: number },
  scale: number,
  closing: number,
  onDraft: (draft: Draft) => void,
  onDraw: (source: Source) => void,
): Held {
  const points = [from];
  const times = [0];
  const within_mm = Math.min(1, Math.max(0.05, SEEN_PX / scale));
  let way = 0;
  const source = (straight: boolean): Source => {
    const closed = !straight && way > LEAST_ROUND * closing && apart(points[points.length - 1], from) <= closing;
    return { kind: "hand", points: [...points], times: [...times], smooth_pct: STANDARD, within_mm, straight, closed };
  };
  return {
    move: ({ along, times: when, straight }) => {
      along.forEach((place, i) => {
        const step = apart(place, points[points.length - 1]);
        if (step * scale < APART_PX) return;
        way += step;
        points.push(place);
        times.push(Math.max(times[times.length - 1], Math.round((when[i] - begun) * 10) / 10));
      });
      if (points.length > 1) onDraft({ line_id: null, source: source(straight) });
    },
    up: ({ straight }) => (points.length > 1 ? onDraw(source(straight)) : onDraft(null)),
  };
}
