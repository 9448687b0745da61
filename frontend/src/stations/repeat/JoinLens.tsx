import type { Scene } from "../../shared/api/scenes";
import { JOINS } from "../../shared/api/tables";
import type { View } from "../../shared/view/view";
import type { FlatSizes } from "./flatSizes";
import { lensLeft, lookAt } from "./lens";

/** What the outlines say, where they are measured. */
function outlineRows(join: Float32Array): [string, string][] {
  if (Number.isNaN(join[JOINS.apart])) return [];
  const touching = join[JOINS.apart] < 0.005;
  if (touching && Number.isNaN(join[JOINS.overlap])) return [];
  return [touching ? ["shared", `${join[JOINS.overlap].toFixed(2)} mm²`] : ["apart", `${join[JOINS.apart].toFixed(2)} mm`]];
}

interface Props {
  scene: Scene;
  index: number;
  place: number;
  view: View;
  lens: FlatSizes["lens"];
  night: boolean;
}

/** The thread from a join to its lens, and the join's figures; the run's canvas paints the glass. */
export function JoinLens({ scene, index, place, view, lens, night }: Props) {
  const { join, gap, middle } = lookAt(scene, index, lens.radius);
  const x = view.x + middle * view.scale;
  const y = view.y;
  const left = lensLeft(lens, place);
  const cx = left + lens.radius;
  const rows: [string, string][] = [
    [gap < -0.005 ? "overlap" : "gap", `${Math.abs(gap).toFixed(2)} mm`],
    ["step", `${join[JOINS.step].toFixed(2)} mm`],
    ["kink", `${join[JOINS.kink].toFixed(1)}°`],
    ...(join[JOINS.tone] >= 0.5 ? ([["tone", `ΔE ${join[JOINS.tone].toFixed(1)}`]] as [string, string][]) : []),
    ...outlineRows(join),
  ];
  return (
    <>
      <svg aria-hidden className="pointer-events-none absolute inset-0 h-full w-full">
        <path
          d={`M${x} ${y}C${x} ${y + 46} ${cx} ${lens.top - 46} ${cx} ${lens.top}`}
          fill="none"
          stroke={night ? "#e08a7e" : "var(--color-madder)"}
          strokeWidth="1"
        />
        <circle cx={x} cy={y} r="2.5" fill={night ? "#e08a7e" : "var(--color-madder)"} />
      </svg>
      <div className="absolute flex items-center gap-2.5" style={{ left, top: lens.top }} data-testid={`lens-${place}`}>
        <div role="img" aria-label={`Join ${index + 1}, magnified`} style={{ width: 2 * lens.radius, height: 2 * lens.radius }} />
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
