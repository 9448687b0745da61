import type { Settings } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { JOINS } from "../../shared/api/tables";
import { useSize } from "../../shared/view/WorkCanvas";
import { Figures } from "./JoinPlotFigures";
import { HEIGHT, ROOM } from "./joinPlotSizes";

interface Props {
  scene: Scene;
  settings: Settings;
  night: boolean;
}

/** Gap and kink of every join along a trial line, against what may be missed before it is a finding. */
export function JoinPlot({ scene, settings, night }: Props) {
  const [box, size] = useSize<HTMLDivElement>();
  const joins = Array.from({ length: scene.joins.length / JOINS.width }, (_, i) =>
    scene.joins.subarray(i * JOINS.width, (i + 1) * JOINS.width),
  );
  const jointed = settings.travel.round_bends === "jointed";
  const gapTolerance = settings.joins?.gap_tolerance_mm ?? 0.1;
  const kinkTolerance = settings.joins?.kink_tolerance_deg ?? 15;
  const gaps = joins.map((join) => join[JOINS.gap] - join[JOINS.wished]);
  const most = Math.max(gapTolerance * 1.5, ...gaps.map(Math.abs));
  const mostKink = Math.max(kinkTolerance * 1.5, ...joins.map((join) => join[JOINS.kink]));
  const width = Math.max(80, size.width - ROOM.left - ROOM.right);
  const height = HEIGHT - ROOM.top - ROOM.foot;
  const x = (s: number): number => ROOM.left + (scene.length_mm ? s / scene.length_mm : 0) * width;
  const y = (gap: number): number => ROOM.top + (height / 2) * (1 - gap / most);
  const kinkY = (kink: number): number => ROOM.top + height * (1 - kink / mostKink);
  const ink = night ? "#ffffff" : "var(--color-loden)";
  const weld = night ? "#e8bd4d" : "#8a6710";
  const order = joins.map((_, i) => i).sort((a, b) => joins[a][JOINS.s] - joins[b][JOINS.s]);
  const line = order.map((i) => `${x(joins[i][JOINS.s]).toFixed(1)} ${kinkY(joins[i][JOINS.kink]).toFixed(1)}`).join("L");
  const strays = Math.max(...gaps.map(Math.abs)).toFixed(2);
  const kinks = Math.max(...joins.map((join) => join[JOINS.kink])).toFixed(1);
  const words = joins.length
    ? `Gap and kink at ${joins.length} joins: gaps stray by up to ${strays} mm, kinks up to ${kinks} degrees`
    : "No joins to plot";
  return (
    <div
      ref={box}
      className={`shrink-0 border border-t-0 border-rule ${night ? "bg-night" : "bg-work"}`}
      style={{ height: HEIGHT }}
    >
      {size.width > 0 && (
        <svg
          role="img"
          aria-label={words}
          width={size.width}
          height={HEIGHT}
          fontSize="11"
          data-testid="join-plot"
          data-joins={joins.length}
        >
          <rect
            x={ROOM.left}
            y={y(gapTolerance)}
            width={width}
            height={y(-gapTolerance) - y(gapTolerance)}
            fill={night ? "#ffffff14" : "#20352c0d"}
          />
          <path d={`M${ROOM.left} ${y(0)}H${ROOM.left + width}`} stroke={ink} strokeOpacity=".5" />
          {!jointed && !scene.apart && (
            <path d={`M${ROOM.left} ${kinkY(kinkTolerance)}H${ROOM.left + width}`} stroke={weld} strokeDasharray="3 4" />
          )}
          {joins.map((join, i) => {
            const faulty = Math.abs(gaps[i]) > gapTolerance + 1e-6;
            return (
              <path
                key={i}
                d={`M${x(join[JOINS.s]).toFixed(1)} ${y(0)}V${y(gaps[i]).toFixed(1)}`}
                stroke={faulty ? (night ? "#e08a7e" : "var(--color-madder)") : ink}
                strokeWidth={faulty ? 3 : 2}
              />
            );
          })}
          {joins.length > 1 && <path d={`M${line}`} fill="none" stroke={weld} strokeWidth="1.5" />}
          <Figures most={most} mostKink={mostKink} length={scene.length_mm} {...{ width, y, kinkY, ink, weld }} />
        </svg>
      )}
    </div>
  );
}
