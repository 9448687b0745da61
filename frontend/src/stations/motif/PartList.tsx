import { pressed, withGroup } from "./view";
import { useOpenMotif } from "./openMotif";

const LIES = { under: "lies under", interlocked: "interlocked" };

/** The parts of the motif, the topmost first; press one to choose it. */
export function PartList() {
  const { bench, parts, choose } = useOpenMotif();
  const { shapes } = bench.motif;
  return (
    <ol aria-label="Parts, the topmost first" className="w-[148px] shrink-0 overflow-y-auto border-r border-rule pr-2">
      {shapes
        .map((shape, i) => ({ shape, i }))
        .reverse()
        .filter(({ shape }) => !shape.derived)
        .slice(0, 300)
        .map(({ shape, i }) => (
          <li key={i}>
            <button
              className="flex min-h-6 w-full items-center gap-2 px-1.5 text-left aria-pressed:bg-indigo-wash aria-pressed:font-semibold"
              aria-pressed={parts.includes(i)}
              onClick={(event) => {
                const more = event.shiftKey || event.ctrlKey;
                choose(
                  more ? [...new Set([...parts, ...withGroup(shapes, i)])].sort((a, b) => a - b) : pressed(shapes, parts, i),
                );
              }}
            >
              <svg aria-hidden width="14" height="14" className="shrink-0">
                <circle
                  cx="7"
                  cy="7"
                  r="5.5"
                  fill={shape.fill ?? "none"}
                  fillOpacity={shape.fill_opacity}
                  stroke={shape.stroke ?? "var(--color-rule)"}
                  strokeWidth="1.5"
                />
              </svg>
              <span className="min-w-0 truncate leading-tight">
                {shape.name || `Part ${i + 1}`}
                {shape.lies !== "over" && <span className="block text-[11px] font-normal text-moss">{LIES[shape.lies]}</span>}
              </span>
              {shape.group > 0 && <span className="ml-auto shrink-0 text-[11px] text-moss">group {shape.group}</span>}
            </button>
          </li>
        ))}
    </ol>
  );
}
