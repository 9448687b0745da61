import type { View } from "../../shared/view/view";
import { useDesk } from "./desk";
import { useClosing } from "./useClosing";

/** Where a line that is drawn by hand began, and how near the hand must come back for it to close; full where it does. */
export function ClosingMark({ view }: { view: View }) {
  const source = useDesk((desk) => desk.draft?.source);
  const closing = useClosing(view.scale);
  if (source?.kind !== "hand" || source.straight) return null;
  const [x, y] = source.points[0];
  const closes = source.closed ?? false;
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full" data-testid="closing" data-closes={closes}>
      <circle
        cx={x * view.scale + view.x}
        cy={y * view.scale + view.y}
        r={closing * view.scale}
        fill={closes ? "var(--color-madder)" : "none"}
        fillOpacity=".25"
        stroke="var(--color-madder)"
        strokeWidth="1.5"
        strokeDasharray={closes ? undefined : "3 4"}
      />
      {closes && (
        <text
          x={x * view.scale + view.x + closing * view.scale + 6}
          y={y * view.scale + view.y + 4}
          fontSize="13"
          className="font-semibold"
        >
          closes
        </text>
      )}
    </svg>
  );
}
