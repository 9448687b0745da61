import type { Scene } from "../../shared/api/scenes";
import { EXTENT } from "../../shared/api/tables";
import type { View } from "../../shared/view/view";
import { AcrossMark } from "./AcrossMark";
import { RIGHT, raised } from "./flatSizes";
import { useLaidBench } from "./openBench";
import { PitchMark } from "./PitchMark";
import { SizeMark } from "./SizeMark";
import { TurnMark } from "./TurnMark";
import type { BenchHeader } from "./types";

/** Where the middle of the i-th piece lies along the run, in mm. */
function middleOf(scene: Scene, i: number, header: BenchHeader): number {
  const row = scene.extents.subarray(i * EXTENT.width, (i + 1) * EXTENT.width);
  return row.length ? row[EXTENT.s] + (row[EXTENT.after] - row[EXTENT.before]) / 2 : header.piece_mm / 2 + i * header.pitch_mm;
}

const UNDER_RULE = 42; // px

/** Where the i-th joint of a chain lies along the run, in mm. */
function jointAt(scene: Scene, i: number): number {
  const row = scene.extents.subarray(Math.min(i, scene.pieces - 1) * EXTENT.width);
  return i < scene.pieces ? row[EXTENT.s] - row[EXTENT.before] : row[EXTENT.s] + row[EXTENT.after];
}

/** What lies on the run to be dragged: the pitch tape, the size arrow, the turning ring. */
export function FlatMarks({ scene, header, view, first }: { scene: Scene; header: BenchHeader; view: View; first: number }) {
  const { size, shown } = useLaidBench();
  const x = (i: number): number => view.x + middleOf(scene, i, header) * view.scale;
  const half = Math.max(14, (header.height_mm / 2) * view.scale);
  const centre = view.y - raised(header) * view.scale;
  const end = Math.min(size.width - RIGHT + 14, x(scene.pieces - 1) + (header.piece_mm / 2) * view.scale + 26);
  const above = Math.max(0, ...(shown.rows?.beside_mm ?? []).map((mm) => -mm)) * view.scale; // rows that lie there
  const jointed = shown.travel.round_bends === "jointed" && shown.travel.kind === "repeated";
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full overflow-visible">
      {jointed &&
        Array.from({ length: scene.pieces + 1 }, (_, i) => i).map((i) => (
          <circle
            key={i}
            cx={view.x + jointAt(scene, i) * view.scale}
            cy={view.y}
            r="4.5"
            fill="var(--color-work)"
            stroke="var(--color-madder)"
            strokeWidth="1.6"
          />
        ))}
      {scene.pieces > first + 2 && (
        <PitchMark
          from={x(first + 1)}
          to={x(first + 2)}
          top={Math.max(UNDER_RULE, centre - half - 30 - above)}
          middle={view.y}
          scale={view.scale}
          header={header}
          jointed={jointed}
        />
      )}
      <SizeMark end={end} half={half} middle={centre} />
      {!jointed && <TurnMark x={x(first)} half={half} middle={view.y} />}
      <AcrossMark length={header.piece_mm * view.scale} end={end} middle={view.y} />
    </svg>
  );
}
