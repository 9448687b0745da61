import { useCallback, useMemo } from "react";
import type { Paint } from "../../shared/view/layers";
import { useSize, WorkCanvas } from "../../shared/view/WorkCanvas";
import { CutMarks } from "./CutMarks";
import { PartMarks } from "./PartMarks";
import { PointMarks } from "./PointMarks";
import { benchView, partAt, withGroup } from "./view";
import { paintBench } from "./benchPainter";
import { FrameMarks } from "./FrameMarks";
import { DrawOver } from "./DrawOver";
import { useBeginning } from "./beginning";
import { useOpenMotif } from "./openMotif";
import { useItsCorner } from "./useItsCorner";
import { useWork } from "./work";

const WORDS = {
  corner: "It lies between the run that enters and the run that leaves, which are pale.",
  cut: "What lies between the tapes repeats, as along the foot.",
  row: "Neighbours are pale: what is drawn here is always seen repeating.",
};

/** The motif large on its frame between its own neighbours, with what belongs to the open question lying on it to drag. */
export function Bench() {
  const { bench, edit, parts, choose: chooseParts } = useOpenMotif();
  const tab = useWork((work) => work.tab);
  const night = useWork((work) => work.night);
  const drawing = useBeginning((now) => now.drawing);
  const [box, size] = useSize<HTMLDivElement>();
  const { motif } = bench;
  const corner = useItsCorner();
  const standing = edit.standing ?? bench;
  const fitted = useMemo(() => benchView(size, standing, corner), [size, standing, corner]);
  const { originX, originY } = edit;
  const view = useMemo(
    () => ({ ...fitted, x: fitted.x + originX * fitted.scale, y: fitted.y + originY * fitted.scale }),
    [fitted, originX, originY],
  );

  const paint = useCallback<Paint>(
    (ctx, area, ratio) => paintBench(ctx, area, ratio, bench, view, corner),
    [bench, view, corner],
  );
  const at = (event: React.PointerEvent): [number, number] => {
    const own = box.current!.getBoundingClientRect();
    return [(event.clientX - own.x - view.x) / view.scale, (event.clientY - own.y - view.y) / view.scale];
  };
  const choose = (event: React.PointerEvent): void => {
    if (drawing || tab === "cut" || event.button !== 0) return;
    const found = partAt(motif.shapes, ...at(event), 8 / view.scale);
    if (found === null) return chooseParts([]);
    const own = withGroup(motif.shapes, found);
    const more = event.shiftKey
      ? own.every((i) => parts.includes(i))
        ? parts.filter((i) => !own.includes(i))
        : [...new Set([...parts, ...own])]
      : own;
    chooseParts(more.sort((a, b) => a - b));
  };
  return (
    <div
      ref={box}
      className={`relative min-h-0 flex-1 overflow-hidden ${night ? "weave-night" : "weave"}`}
      onPointerDown={choose}
      data-testid="bench"
      data-scale={view.scale}
      data-x={view.x}
      data-y={view.y}
      data-version={standing.motif.version}
    >
      <WorkCanvas
        paint={paint}
        label={`${motif.name} between its own neighbours`}
        testId="motif-bench"
        className="absolute inset-0"
      />
      <svg className="pointer-events-none absolute inset-0 h-full w-full">
        <FrameMarks view={view} size={size} />
        {tab === "cut" && !drawing && <CutMarks view={view} size={size} />}
        {tab === "points" && !drawing && parts.length === 1 && bench.contours && (
          <PointMarks contours={bench.contours} view={view} />
        )}
        {tab !== "cut" && tab !== "points" && !drawing && parts.length > 0 && <PartMarks view={view} />}
      </svg>
      {drawing && <DrawOver view={view} drawing={drawing} />}
      <p className={`pointer-events-none absolute bottom-2 left-5 text-[12.5px] ${night ? "text-white/75" : "text-moss"}`}>
        Frame {motif.width_mm.toFixed(2)} × {motif.height_mm.toFixed(2)} mm
        {corner ? "" : `, repeating every ${motif.pitch_mm.toFixed(2)} mm`}.{" "}
        {WORDS[corner ? "corner" : motif.cuts_mm ? "cut" : "row"]}
      </p>
    </div>
  );
}
