import type { Settings } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { EXTENT } from "../../shared/api/tables";
import { useHandle } from "../../shared/ui/handle";
import type { View } from "../../shared/view/view";
import type { BenchHeader } from "./types";
import type { BrushEdit } from "./useBrushEdit";
import { MIDDLE, RIGHT } from "./flatSizes";

/** Where the i-th joint of a chain lies along the run, in mm. */
function jointAt(scene: Scene, i: number): number {
  const row = scene.extents.subarray(Math.min(i, scene.pieces - 1) * EXTENT.width);
  return i < scene.pieces ? row[EXTENT.s] - row[EXTENT.before] : row[EXTENT.s] + row[EXTENT.after];
}

interface MarksProps {
  scene: Scene;
  header: BenchHeader;
  view: View;
  size: { width: number; height: number };
  settings: Settings;
  edit: BrushEdit;
  night: boolean;
  /** The colour of the ground, about words that may lie on artwork. */
  glass: string;
}

/** What lies on the run to be dragged: the pitch tape, the size arrow, the turning ring. */
export function Marks({ scene, header, view, size, settings, edit, night, glass }: MarksProps) {
  const middle = (i: number): number => {
    const row = scene.extents.subarray(i * EXTENT.width, (i + 1) * EXTENT.width);
    return row.length ? row[EXTENT.s] + (row[EXTENT.after] - row[EXTENT.before]) / 2 : header.piece_mm / 2 + i * header.pitch_mm;
  };
  const [from, to] = [middle(1), middle(2)].map((s) => view.x + s * view.scale);
  const half = Math.max(14, (header.height_mm / 2) * view.scale);
  const end = Math.min(
    size.width - RIGHT + 14,
    view.x + middle(scene.pieces - 1) * view.scale + (header.piece_mm / 2) * view.scale + 26,
  );
  const ringX = view.x + middle(0) * view.scale;
  const ink = night ? "#ffffff" : "var(--color-loden)";
  const top = MIDDLE - half - 30;

  const setPitch = (pitch: number, then: (gap: number) => void): void => {
    const gap = (pitch / header.piece_mm - 1) * 100;
    then(Number(Math.max(-99, Math.min(100_000, gap)).toFixed(2)));
  };
  const jointed = settings.travel.round_bends === "jointed" && settings.travel.kind === "repeated";
  const least = 0.02 * header.pitch_mm;
  const hang = (mm: number): number => Number(Math.max(least, mm).toFixed(3));
  const gapPitch = useHandle({
    move: (dx, _dy, at) =>
      setPitch(Math.max(0.01 * header.piece_mm, at.pitch + dx / view.scale / 2), (gap_pct) =>
        edit.drag({ spacing: { gap_pct } }),
      ),
    done: (dx, _dy, at) =>
      setPitch(at.pitch + dx / view.scale / 2, (gap_pct) => edit.set({ spacing: { gap_pct } }, `gap to ${gap_pct} %`)),
    begin: () => ({ pitch: header.pitch_mm, size: 0, turn: 0 }),
    step: (by) => setPitch(header.pitch_mm + by * 0.1, (gap_pct) => edit.set({ spacing: { gap_pct } }, `gap to ${gap_pct} %`)),
    leave: edit.release,
  });
  const jointPitch = useHandle({
    begin: () => ({ pitch: header.pitch_mm }),
    move: (dx, _dy, at) => edit.dragPitch(hang(at.pitch + dx / view.scale / 2)),
    done: (dx, _dy, at) => edit.setPitch(hang(at.pitch + dx / view.scale / 2)),
    step: (by) => edit.setPitch(hang(header.pitch_mm + by * 0.1)),
    leave: edit.release,
  });
  const pitch = jointed ? jointPitch : gapPitch;
  const sizeFrom = (at: { size: number; half: number }, dy: number): number =>
    Number(Math.max(1, Math.min(10_000, (at.size * Math.max(3, at.half + dy)) / at.half)).toFixed(1));
  const sizing = useHandle({
    begin: () => ({ size: settings.spacing.size_pct ?? 100, half }),
    move: (_dx, dy, at) => edit.drag({ spacing: { size_pct: sizeFrom(at, dy) } }),
    done: (_dx, dy, at) => edit.set({ spacing: { size_pct: sizeFrom(at, dy) } }, `size to ${sizeFrom(at, dy)} %`),
    step: (by) => {
      const size_pct = Math.max(1, (settings.spacing.size_pct ?? 100) + by);
      edit.set({ spacing: { size_pct } }, `size to ${size_pct} %`);
    },
    leave: edit.release,
  });
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
      const turn_deg = (settings.travel.turn_deg ?? 0) + by * 5;
      if (Math.abs(turn_deg) <= 360) edit.set({ travel: { turn_deg } }, `turn to ${turn_deg}°`);
    },
    leave: edit.release,
  });

  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full overflow-visible">
      {jointed &&
        Array.from({ length: scene.pieces + 1 }, (_, i) => i).map((i) => (
          <circle
            key={i}
            cx={view.x + jointAt(scene, i) * view.scale}
            cy={MIDDLE}
            r="4.5"
            fill="var(--color-work)"
            stroke="var(--color-madder)"
            strokeWidth="1.6"
          />
        ))}
      {scene.pieces > 2 && (
        <g>
          <path
            d={`M${from} ${top + 26}V${MIDDLE}M${to} ${top + 26}V${MIDDLE}`}
            stroke={ink}
            strokeDasharray="1.5 3"
            fill="none"
          />
          <rect x={from} y={top + 3} width={Math.max(1, to - from)} height={20} fill="var(--color-weld)" />
          <path d={tapeTicks(from, to, top + 23)} stroke="#5b4306" strokeWidth="1" fill="none" />
          <rect x={from - 3} y={top - 1} width={6} height={28} fill={ink} />
          <g
            {...pitch}
            role="slider"
            aria-label="Pitch"
            aria-valuenow={Number(header.pitch_mm.toFixed(2))}
            aria-valuetext={`${header.pitch_mm.toFixed(2)} mm`}
            className="pointer-events-auto cursor-ew-resize"
          >
            <rect x={to - 12} y={top - 8} width={24} height={42} fill="transparent" />
            <rect x={to - 4} y={top - 1} width={8} height={28} rx={1.5} fill="var(--color-madder)" />
          </g>
          <text
            x={to + 12}
            y={top + 18}
            className="font-bold"
            fill={night ? "#ffb9ae" : "var(--color-madder)"}
            fontSize="13.5"
            stroke={glass}
            strokeWidth="4"
            strokeLinejoin="round"
            style={{ paintOrder: "stroke" }}
            data-testid="pitch-figure"
          >
            pitch {header.pitch_mm.toFixed(2)} mm
          </text>
        </g>
      )}
      <g
        {...sizing}
        role="slider"
        aria-label="Size on the run"
        aria-valuenow={settings.spacing.size_pct}
        aria-valuetext={`${settings.spacing.size_pct} %`}
        className="pointer-events-auto cursor-ns-resize"
      >
        <rect x={end - 14} y={MIDDLE - half - 6} width={28} height={2 * half + 12} fill="transparent" />
        <path
          d={`M${end} ${MIDDLE - half}v${2 * half}m-5 -7l5 7l5 -7M${end - 5} ${MIDDLE - half + 7}l5 -7l5 7`}
          fill="none"
          stroke={night ? "#9db9f0" : "var(--color-indigo)"}
          strokeWidth="2"
          strokeLinecap="round"
        />
      </g>
      <text x={end + 14} y={MIDDLE + 4} fill={night ? "#9db9f0" : "var(--color-indigo)"} fontSize="13" className="font-semibold">
        size {Number((settings.spacing.size_pct ?? 100).toFixed(1))} %
      </text>
      {!jointed && (
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
            cy={MIDDLE}
            r={half + 8}
            fill="none"
            stroke={night ? "#9db9f0" : "var(--color-indigo)"}
            strokeWidth="1"
            strokeDasharray="2 4"
            opacity=".75"
          />
          <circle
            cx={ringX + (half + 8) * Math.cos(((settings.travel.turn_deg ?? 0) * Math.PI) / 180)}
            cy={MIDDLE + (half + 8) * Math.sin(((settings.travel.turn_deg ?? 0) * Math.PI) / 180)}
            r="5"
            fill={night ? "#1d2624" : "#fff"}
            stroke={night ? "#9db9f0" : "var(--color-indigo)"}
            strokeWidth="2"
          />
        </g>
      )}
    </svg>
  );
}

function tapeTicks(from: number, to: number, y: number): string {
  const count = Math.min(40, Math.max(2, Math.round((to - from) / 6)));
  return Array.from({ length: count - 1 }, (_, i) => {
    const x = from + ((i + 1) * (to - from)) / count;
    return `M${x.toFixed(1)} ${y}v${(i + 1) % 5 ? -6 : -11}`;
  }).join("");
}
