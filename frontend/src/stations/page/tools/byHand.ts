import type { Source } from "../../../shared/api/client";
import { apart, type Draft, type Held, type Place } from "./held";

const APART_PX = 1.5; // points closer than this say nothing of the hand

/** A line is pulled across the sheet; a press that goes nowhere draws none. */
export function byHand(from: Place, scale: number, onDraft: (draft: Draft) => void, onDraw: (source: Source) => void): Held {
  const points = [from];
  return {
    move: ({ along, straight }) => {
      for (const place of along) if (apart(place, points[points.length - 1]) * scale >= APART_PX) points.push(place);
      if (points.length > 1) onDraft({ line_id: null, source: { kind: "hand", points: [...points], straight } });
    },
    up: ({ straight }) => (points.length > 1 ? onDraw({ kind: "hand", points, straight }) : onDraft(null)),
  };
}
