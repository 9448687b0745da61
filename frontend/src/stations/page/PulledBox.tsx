import type { View } from "../../shared/view/view";
import type { Place } from "./tools/held";

/** The box that is pulled over the lines to choose, between two places in mm. */
export function PulledBox({ pulled: [a, b], view }: { pulled: [Place, Place]; view: View }) {
  const [x, y] = [0, 1].map((k) => Math.min(a[k], b[k]) * view.scale + (k ? view.y : view.x));
  const [width, height] = [0, 1].map((k) => Math.abs(a[k] - b[k]) * view.scale);
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full">
      <rect {...{ x, y, width, height }} fill="rgba(44,74,132,0.08)" stroke="var(--color-indigo)" strokeDasharray="4 3" />
    </svg>
  );
}
