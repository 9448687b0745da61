import type { View } from "../../shared/view/view";
import type { Points } from "./tools/byPoints";
import type { Mode } from "./types";

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

export function DrawingNote({
  mode,
  pointed,
  onPointed,
  onDone,
}: {
  mode: Mode;
  pointed: boolean;
  onPointed: (p: boolean) => void;
  onDone: () => void;
}) {
  return (
    <div
      className="absolute top-9 left-1/2 flex -translate-x-1/2 items-center gap-3 border border-rule bg-work px-3 py-1.5"
      onPointerDown={(e) => e.stopPropagation()}
    >
      {mode === "hand" ? (
        <span>Pull across the sheet; hold Shift for a straight line.</span>
      ) : (
        <>
          <span>Press for each point; press the first to close, Enter to end.</span>
          <label className="flex items-center gap-1.5">
            <input type="checkbox" checked={pointed} onChange={(e) => onPointed(e.target.checked)} />
            pointed
          </label>
        </>
      )}
      <button className="plain-button" onClick={onDone}>
        Done
      </button>
    </div>
  );
}
