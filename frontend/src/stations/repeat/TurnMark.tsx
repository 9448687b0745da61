import { useHandle } from "../../shared/ui/handle";
import { useLaidBench, useOpenBench } from "./openBench";

/** The ring about the first piece: its knob turns all pieces, by 5° steps or finely. */
export function TurnMark({ x: ringX, half, middle }: { x: number; half: number; middle: number }) {
  const { hands: edit, ground } = useOpenBench();
  const { shown: settings, said } = useLaidBench();
  const { night } = ground;
  const swing = settings.variations?.find(({ of }) => of === "turn");
  const turnFrom = (at: { turn: number }, dx: number, dy: number, fine: boolean): number => {
    const angle = (Math.atan2(dy, half + 20 + dx) * 180) / Math.PI + at.turn;
    const wrapped = ((angle + 540) % 360) - 180;
    return fine ? Math.round(wrapped) : Math.round(wrapped / 5) * 5;
  };
  const turning = useHandle({
    begin: () => ({ turn: settings.travel.turn_deg ?? 0 }),
    move: (dx, dy, at, fine) => edit.drag({ travel: { turn_deg: turnFrom(at, dx, dy, fine) } }),
    done: (dx, dy, at, fine) =>
      edit.set({ travel: { turn_deg: turnFrom(at, dx, dy, fine) } }, `turn to ${turnFrom(at, dx, dy, fine)}°`),
    step: (by) => {
      const turn_deg = (said.travel.turn_deg ?? 0) + by * 5;
      if (Math.abs(turn_deg) <= 360) edit.set({ travel: { turn_deg } }, `turn to ${turn_deg}°`);
    },
    leave: edit.release,
  });

  return (
    <g
      {...turning}
      role="slider"
      aria-label="Turn on the run"
      aria-valuenow={settings.travel.turn_deg}
      aria-valuetext={`${settings.travel.turn_deg}°`}
      className="pointer-events-auto cursor-grab"
    >
      <circle
        cx={ringX}
        cy={middle}
        r={half + 8}
        fill="none"
        stroke={night ? "#9db9f0" : "var(--color-indigo)"}
        strokeWidth="1"
        strokeDasharray="2 4"
        opacity=".75"
      />
      {swing && (
        <path
          d={arcOf(
            [ringX, middle],
            half + 8,
            (settings.travel.turn_deg ?? 0) + swing.between[0],
            (settings.travel.turn_deg ?? 0) + swing.between[1],
          )}
          fill="none"
          stroke="var(--color-madder)"
          strokeWidth="3"
          opacity=".8"
        />
      )}
      <circle
        cx={ringX + (half + 8) * Math.cos(((settings.travel.turn_deg ?? 0) * Math.PI) / 180)}
        cy={middle + (half + 8) * Math.sin(((settings.travel.turn_deg ?? 0) * Math.PI) / 180)}
        r="5"
        fill={night ? "#1d2624" : "#fff"}
        stroke={night ? "#9db9f0" : "var(--color-indigo)"}
        strokeWidth="2"
      />
    </g>
  );
}

/** The arc from one angle to another about the run's middle, degrees clockwise; a whole turn at most. */
function arcOf([x, y]: [number, number], r: number, from: number, to: number): string {
  const [low, high] = [Math.min(from, to), Math.min(Math.max(from, to), Math.min(from, to) + 359.9)];
  const at = (deg: number): string => `${x + r * Math.cos((deg * Math.PI) / 180)} ${y + r * Math.sin((deg * Math.PI) / 180)}`;
  return `M${at(low)}A${r} ${r} 0 ${high - low > 180 ? 1 : 0} 1 ${at(high)}`;
}
