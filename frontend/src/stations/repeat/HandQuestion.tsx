import { useHandle } from "../../shared/ui/handle";
import { NumberField } from "../../shared/ui/NumberField";
import type { Settings } from "../../shared/api/client";
import { bound } from "./bound";
import type { BrushEdit } from "./useBrushEdit";

type Width = NonNullable<NonNullable<Settings["hand"]>["width_along"]>[number];

/** What the hand does: tapered ends, and the width along the line. */
export function HandQuestion({ edit, settings }: { edit: BrushEdit; settings: Settings }) {
  return (
    <div className="flex flex-col gap-2">
      <div className="flex flex-wrap gap-x-6 gap-y-1">
        <NumberField
          compact
          label="Taper at the start"
          step={1}
          standard={0}
          {...bound(edit, settings, "hand", "taper_start_mm", "taper at the start", "mm")}
        />
        <NumberField
          compact
          label="at the end"
          step={1}
          standard={0}
          {...bound(edit, settings, "hand", "taper_end_mm", "taper at the end", "mm")}
        />
        <NumberField
          compact
          label="Lightest touch"
          step={5}
          standard={20}
          {...bound(edit, settings, "hand", "taper_to_pct", "lightest touch", "%")}
        />
      </div>
      <WidthProfile edit={edit} settings={settings} />
    </div>
  );
}

const PLOT = { width: 344, height: 104, left: 34, right: 8, top: 8, foot: 14 };
const MOST_PCT = 250;
const LEVEL: Width[] = [
  { at_pct: 0, width_pct: 100 },
  { at_pct: 50, width_pct: 100 },
  { at_pct: 100, width_pct: 100 },
];

/** The width along the line as points to be dragged; the line's start is at the left. */
function WidthProfile({ edit, settings }: { edit: BrushEdit; settings: Settings }) {
  const points = settings.hand?.width_along ?? [];
  const x = (at: number): number => PLOT.left + ((PLOT.width - PLOT.left - PLOT.right) * at) / 100;
  const y = (width: number): number =>
    PLOT.top + (PLOT.height - PLOT.top - PLOT.foot) * (1 - Math.min(width, MOST_PCT) / MOST_PCT);
  const put = (width_along: Width[]) => ({ hand: { width_along } });
  const keep = (next: Width[], words: string): void => edit.set(put(next), words);
  const moved = (i: number, to: Width): Width[] => points.map((p, k) => (k === i ? within(points, i, to) : p));
  const add = (): void => {
    const gaps = points.slice(1).map((p, i) => p.at_pct - points[i].at_pct);
    const i = gaps.indexOf(Math.max(...gaps));
    const middle = {
      at_pct: (points[i].at_pct + points[i + 1].at_pct) / 2,
      width_pct: Math.round((points[i].width_pct + points[i + 1].width_pct) / 2),
    };
    keep([...points.slice(0, i + 1), middle, ...points.slice(i + 1)], "a point of the width");
  };
  const through = points.map((p) => `L${x(p.at_pct)} ${y(p.width_pct)}`).join("");
  return (
    <div>
      <div className="flex items-baseline gap-3 text-[12.5px] text-moss">
        Width along the line
        {points.length ? (
          <>
            <button className="plain-button px-1.5 py-0" disabled={points.length >= 12} onClick={add}>
              one more point
            </button>
            <button className="plain-button px-1.5 py-0" onClick={() => keep([], "one width all along")}>
              one width all along
            </button>
          </>
        ) : (
          <button
            className="plain-button px-1.5 py-0"
            onClick={() => keep([LEVEL[0], { at_pct: 50, width_pct: 150 }, LEVEL[2]], "thick and thin")}
          >
            Thick and thin
          </button>
        )}
      </div>
      {points.length > 0 && (
        <svg
          width={PLOT.width}
          height={PLOT.height}
          className="mt-1 max-w-full"
          fontSize="11"
          role="group"
          aria-label="Width along the line"
        >
          {[50, 100, 200].map((level) => (
            <g key={level}>
              <path
                d={`M${PLOT.left} ${y(level)}H${PLOT.width - PLOT.right}`}
                stroke="var(--color-rule)"
                strokeDasharray={level === 100 ? undefined : "2 4"}
              />
              <text x={PLOT.left - 4} y={y(level) + 4} textAnchor="end" fill="var(--color-moss)">
                {level}
              </text>
            </g>
          ))}
          <path
            d={`M${PLOT.left} ${y(points[0].width_pct)}${through}H${PLOT.width - PLOT.right}`}
            fill="none"
            stroke="var(--color-madder)"
            strokeWidth="1.5"
          />
          {points.map((point, i) => (
            <WidthHandle
              key={i}
              point={point}
              number={i + 1}
              px={[x(point.at_pct), y(point.width_pct)]}
              per={[100 / (PLOT.width - PLOT.left - PLOT.right), MOST_PCT / (PLOT.height - PLOT.top - PLOT.foot)]}
              onDrag={(to) => edit.drag(put(moved(i, to)))}
              onSet={(to) =>
                keep(moved(i, to), `width ${within(points, i, to).width_pct} % at ${Math.round(within(points, i, to).at_pct)} %`)
              }
              onRemove={() => keep(points.length > 2 ? points.filter((_, k) => k !== i) : [], "a point of the width away")}
              onLeave={edit.release}
            />
          ))}
          <text x={PLOT.left} y={PLOT.height - 2} fill="var(--color-moss)">
            start
          </text>
          <text x={PLOT.width - PLOT.right} y={PLOT.height - 2} textAnchor="end" fill="var(--color-moss)">
            end
          </text>
        </svg>
      )}
    </div>
  );
}

/** A point stays between its neighbours and within what the width may be. */
const within = (points: Width[], i: number, to: Width): Width => ({
  at_pct: Number(
    Math.min(
      Math.max(to.at_pct, i ? points[i - 1].at_pct + 1 : 0),
      i + 1 < points.length ? points[i + 1].at_pct - 1 : 100,
    ).toFixed(1),
  ),
  width_pct: Math.round(Math.min(Math.max(to.width_pct, 1), MOST_PCT)),
});

interface HandleProps {
  point: Width;
  number: number;
  px: [number, number];
  /** Per cent a px, along and across. */
  per: [number, number];
  onDrag: (to: Width) => void;
  onSet: (to: Width) => void;
  onRemove: () => void;
  onLeave: () => void;
}

function WidthHandle({ point, number, px: [cx, cy], per, onDrag, onSet, onRemove, onLeave }: HandleProps) {
  const to = (dx: number, dy: number, from: Width): Width => ({
    at_pct: from.at_pct + dx * per[0],
    width_pct: from.width_pct - dy * per[1],
  });
  const { onKeyDown, ...handle } = useHandle<Width>({
    begin: () => point,
    move: (dx, dy, from) => onDrag(to(dx, dy, from)),
    done: (dx, dy, from) => onSet(to(dx, dy, from)),
    step: (by, upright) =>
      onSet(upright ? { ...point, width_pct: point.width_pct + by } : { ...point, at_pct: point.at_pct + by }),
    leave: onLeave,
  });
  return (
    <g
      {...handle}
      role="button"
      aria-label={`Width point ${number}: ${point.width_pct} % at ${Math.round(point.at_pct)} %; Delete takes it away`}
      className="cursor-move"
      data-testid={`width-point-${number}`}
      onKeyDown={(event) => (event.key === "Delete" || event.key === "Backspace" ? onRemove() : onKeyDown(event))}
    >
      <circle cx={cx} cy={cy} r="12" fill="transparent" />
      <circle cx={cx} cy={cy} r="4.5" fill="#fff" stroke="var(--color-madder)" strokeWidth="1.5" />
    </g>
  );
}
