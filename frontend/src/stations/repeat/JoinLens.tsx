import type { Motif } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { EXTENT, JOINS } from "../../shared/api/tables";
import { laidOf, paintPieces } from "../../shared/view/painter";
import type { Ctx, View } from "../../shared/view/view";

const RADIUS = 43;
const TOP = 192;
const EVERY = 196;

export const LENS = {
  /** Where the i-th lens hangs, in px. */
  left: (i: number) => 108 + i * EVERY,
  /** How many joins of a scene hang under the run: as many as there is room for, with their figures, left of `right`. */
  count: (scene: Scene, right: number) =>
    Math.min(4, scene.joins.length / JOINS.width, Math.max(1, Math.floor((right - 100) / EVERY))),
};

/** What a lens looks at: the edge of the piece before the join, the gap to the next, and px a mm. */
function lookAt(scene: Scene, index: number) {
  const join = scene.joins.subarray(index * JOINS.width, (index + 1) * JOINS.width);
  const before = scene.extents.subarray(index * EXTENT.width, (index + 1) * EXTENT.width);
  const gap = join[JOINS.gap];
  const edge = before[EXTENT.s] + before[EXTENT.after];
  const shown = Math.max(Math.abs(gap) * 2.4, (before[EXTENT.before] + before[EXTENT.after]) * 0.28);
  return { join, gap, edge, middle: edge + gap / 2, scale: (2 * RADIUS) / shown };
}

/** Paint one join magnified into its round glass, with the facing edges and the room between them. */
export function paintLens(
  ctx: Ctx,
  scene: Scene,
  motifs: Motif[],
  index: number,
  left: number,
  ratio: number,
  night: boolean,
  ground: string,
): void {
  const { gap, edge, middle, scale } = lookAt(scene, index);
  const [cx, cy] = [left + RADIUS, TOP + RADIUS];
  const close: View = { scale, x: cx - middle * scale, y: cy };
  const glass = new Path2D();
  glass.arc(cx, cy, RADIUS - 1.5, 0, 2 * Math.PI);
  ctx.save();
  ctx.clip(glass);
  ctx.fillStyle = ground;
  ctx.fillRect(left, TOP, 2 * RADIUS, 2 * RADIUS);
  paintPieces(ctx, laidOf(motifs, scene), close, ratio, { x: left, y: TOP, width: 2 * RADIUS, height: 2 * RADIUS });
  const [a, b] = [edge, edge + gap].map((s) => close.x + s * scale);
  ctx.fillStyle = gap >= 0 ? "#c9971c33" : "#2c4a8440";
  ctx.fillRect(Math.min(a, b), TOP, Math.abs(b - a), 2 * RADIUS);
  ctx.strokeStyle = "#a63a2f";
  ctx.lineWidth = 1;
  ctx.beginPath();
  for (const x of [a, b]) {
    ctx.moveTo(x, TOP);
    ctx.lineTo(x, TOP + 2 * RADIUS);
  }
  ctx.stroke();
  ctx.restore();
  ctx.strokeStyle = night ? "#ffffff" : "#20352c";
  ctx.lineWidth = 1.6;
  ctx.stroke(glass);
}

/** What the outlines say, where they are measured. */
function outlineRows(join: Float32Array): [string, string][] {
  if (Number.isNaN(join[JOINS.apart])) return [];
  const touching = join[JOINS.apart] < 0.005;
  return [touching ? ["shared", `${join[JOINS.overlap].toFixed(2)} mm²`] : ["apart", `${join[JOINS.apart].toFixed(2)} mm`]];
}

interface Props {
  scene: Scene;
  index: number;
  view: View;
  left: number;
  night: boolean;
}

/** The thread from a join to its lens, and the join's figures; the run's canvas paints the glass. */
export function JoinLens({ scene, index, view, left, night }: Props) {
  const { join, gap, middle } = lookAt(scene, index);
  const x = view.x + middle * view.scale;
  const y = view.y;
  const cx = left + RADIUS;
  const rows: [string, string][] = [
    [gap < 0 ? "overlap" : "gap", `${Math.abs(gap).toFixed(2)} mm`],
    ["step", `${join[JOINS.step].toFixed(2)} mm`],
    ["kink", `${join[JOINS.kink].toFixed(1)}°`],
    ...(join[JOINS.tone] >= 0.5 ? ([["tone", `ΔE ${join[JOINS.tone].toFixed(1)}`]] as [string, string][]) : []),
    ...outlineRows(join),
  ];
  return (
    <>
      <svg aria-hidden className="pointer-events-none absolute inset-0 h-full w-full">
        <path
          d={`M${x} ${y}C${x} ${y + 46} ${cx} ${TOP - 46} ${cx} ${TOP}`}
          fill="none"
          stroke={night ? "#e08a7e" : "var(--color-madder)"}
          strokeWidth="1"
        />
        <circle cx={x} cy={y} r="2.5" fill={night ? "#e08a7e" : "var(--color-madder)"} />
      </svg>
      <div className="absolute flex items-center gap-2.5" style={{ left, top: TOP }} data-testid={`lens-${index}`}>
        <div role="img" aria-label={`Join ${index + 1}, magnified`} style={{ width: 2 * RADIUS, height: 2 * RADIUS }} />
        <dl className="grid grid-cols-[auto_auto] gap-x-1.5 text-[12px] leading-[1.5]">
          {rows.map(([word, figure]) => (
            <div key={word} className="contents">
              <dt className={night ? "text-white/75" : "text-moss"}>{word}</dt>
              <dd className="font-bold">{figure}</dd>
            </div>
          ))}
        </dl>
      </div>
    </>
  );
}
