import type { View } from "../../shared/view/view";
import { useDesk } from "./desk";
import type { Points } from "./tools/byPoints";
import type { ByPoints } from "./useByPoints";

export function BegunPoints({ begun, view }: { begun: Points; view: View }) {
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full">
      {begun.points.map(([x, y], i) => (
        <circle
          key={i}
          cx={x * view.scale + view.x}
          cy={y * view.scale + view.y}
          r={i ? 4 : 6}
          fill="#fff"
          stroke="var(--color-madder)"
          strokeWidth="1.6"
        />
      ))}
    </svg>
  );
}

/** How to draw, while something is drawn. */
export function DrawingNote({ byPoints }: { byPoints: ByPoints }) {
  const mode = useDesk((desk) => desk.mode);
  const setMode = useDesk((desk) => desk.setMode);
  const pointed = useDesk((desk) => desk.pointed);
  const setPointed = useDesk((desk) => desk.setPointed);
  const { begun, finish } = byPoints;
  return (
    <div
      className="absolute top-9 left-1/2 flex -translate-x-1/2 items-center gap-3 border border-rule bg-work px-3 py-1.5"
      onPointerDown={(e) => e.stopPropagation()}
    >
      {mode === "hand" ? (
        <span>Pull across the sheet, back to the start to close; hold Shift for a straight line.</span>
      ) : (
        <>
          <span>Press for each point; press the first to close, Enter to end.</span>
          <label className="flex items-center gap-1.5">
            <input type="checkbox" checked={pointed} onChange={(e) => setPointed(e.target.checked)} />
            pointed
          </label>
        </>
      )}
      <button className="plain-button" onClick={() => (begun.points.length ? finish(false) : setMode(null))}>
        Done
      </button>
    </div>
  );
}
