import { useOpenBench } from "./openBench";
import { WidthHandle } from "./WidthHandle";
import { MOST_PCT, PLOT, plotX, plotY, within, type Width } from "./widthPlot";

interface Props {
  points: Width[];
  keep: (points: Width[], words: string) => void;
}

export function WidthPlot({ points, keep }: Props) {
  const { hands: edit } = useOpenBench();
  const moved = (i: number, to: Width): Width[] => points.map((p, k) => (k === i ? within(points, i, to) : p));
  const through = points.map((p) => `L${plotX(p.at_pct)} ${plotY(p.width_pct)}`).join("");
  return (
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
            d={`M${PLOT.left} ${plotY(level)}H${PLOT.width - PLOT.right}`}
            stroke="var(--color-rule)"
            strokeDasharray={level === 100 ? undefined : "2 4"}
          />
          <text x={PLOT.left - 4} y={plotY(level) + 4} textAnchor="end" fill="var(--color-moss)">
            {level}
          </text>
        </g>
      ))}
      <path
        d={`M${PLOT.left} ${plotY(points[0].width_pct)}${through}H${PLOT.width - PLOT.right}`}
        fill="none"
        stroke="var(--color-madder)"
        strokeWidth="1.5"
      />
      {points.map((point, i) => (
        <WidthHandle
          key={i}
          point={point}
          number={i + 1}
          px={[plotX(point.at_pct), plotY(point.width_pct)]}
          per={[100 / (PLOT.width - PLOT.left - PLOT.right), MOST_PCT / (PLOT.height - PLOT.top - PLOT.foot)]}
          onDrag={(to) => edit.drag({ hand: { width_along: moved(i, to) } })}
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
  );
}
