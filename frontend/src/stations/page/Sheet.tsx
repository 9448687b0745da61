import { useRef, useState } from "react";
import type { Line, Motif, Page, Source } from "../../shared/api/client";
import type { Finding, Scene } from "../../shared/api/scenes";
import { isTyping, useWindowKey } from "../../shared/ui/keys";
import { useSize, WorkCanvas } from "../../shared/view/WorkCanvas";
import { BegunPoints, DrawingNote } from "./DrawingNotes";
import { Handles } from "./Handles";
import { lineAt, sheetPoint } from "./sheetView";
import { byHand } from "./tools/byHand";
import type { Draft, Held, Place, Reach } from "./tools/held";
import { moveLine } from "./tools/moveLine";
import { pan } from "./tools/pan";
import type { Mode } from "./types";
import { useByPoints } from "./useByPoints";
import { useSheetPaint, type Shift } from "./useSheetPaint";
import { useSheetView } from "./useSheetView";
import { ViewButtons } from "./ViewButtons";

interface Props {
  page: Page;
  lines: Line[];
  scenes: Scene[];
  motifOf: (scene: Scene) => Motif[];
  mode: Mode;
  chosen: Line | null;
  spot: [number, number] | null;
  rings: Finding[];
  draft: Draft;
  canDraw: boolean;
  onMode: (mode: Mode) => void;
  onChoose: (id: number | null) => void;
  onDraft: (draft: Draft) => void;
  onDraw: (source: Source) => void;
  onReshape: (line: Line, source: Source, label: string) => void;
  onMove: (line: Line, by: [number, number]) => Promise<unknown>;
  onRemove: (line: Line) => void;
}

const NO_RINGS: Finding[] = [];
const STEPS: Record<string, Place> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

/** The sheet with its lines: choosing, moving and drawing happen on it. */
export function Sheet(props: Props) {
  const { page, scenes, motifOf, mode, chosen, spot, rings, draft, onDraft, onChoose, onMode } = props;
  const [box, size] = useSize<HTMLDivElement>();
  const { view, setView, zoom } = useSheetView(box, size, page, spot);
  const [shift, setShift] = useState<Shift | null>(null);
  const byPoints = useByPoints(view.scale, onDraft, props.onDraw);
  const held = useRef<Held | null>(null);
  const painting = useSheetPaint({ page, scenes, motifOf, chosen, rings: draft ? NO_RINGS : rings, spot }, view, shift);

  const at = (event: { clientX: number; clientY: number }): Place => sheetPoint(event, box.current!, view);
  const reach = (event: React.PointerEvent): Reach => {
    const events = event.nativeEvent.getCoalescedEvents?.() ?? [];
    const along = (events.length ? events : [event.nativeEvent]).map(at);
    return { client: [event.clientX, event.clientY], mm: at(event), along, straight: event.shiftKey };
  };
  const giveUp = (): void => {
    held.current = null;
    byPoints.giveUp();
    setShift(null);
    onDraft(null);
  };
  /** What a press takes hold of; nothing where it sets a point. */
  const taken = (event: React.PointerEvent, from: Place): Held | null => {
    if (event.button === 1 || event.altKey) return pan(from, view, setView);
    if (mode && props.canDraw) return mode === "hand" ? byHand(at(event), view.scale, onDraft, props.onDraw) : null;
    const line = props.lines.find((each) => each.id === lineAt(at(event), scenes, motifOf, view.scale));
    onChoose(line?.id ?? null);
    if (!line) return pan(from, view, setView);
    const moved = (by: Place): void => void props.onMove(line, by).finally(() => setShift(null));
    return moveLine(from, view.scale, (by) => setShift({ id: line.id, by }), moved);
  };

  const onPointerDown = (event: React.PointerEvent<HTMLDivElement>): void => {
    if (event.button > 1) return;
    held.current = taken(event, [event.clientX, event.clientY]);
    if (held.current) event.currentTarget.setPointerCapture(event.pointerId);
    else byPoints.press(at(event));
  };
  const onPointerMove = (event: React.PointerEvent<HTMLDivElement>): void => {
    if (held.current) held.current.move(reach(event));
    else if (mode === "points") byPoints.point(at(event));
  };
  const onPointerUp = (event: React.PointerEvent<HTMLDivElement>): void => {
    const tool = held.current;
    held.current = null;
    tool?.up(reach(event));
  };

  useWindowKey("keydown", (event) => {
    if (isTyping(event)) return;
    if (event.key === "Escape") {
      if (byPoints.begun.points.length || held.current) giveUp();
      else if (mode) onMode(null);
      else onChoose(null);
    }
    if (mode === "points" && event.key === "Enter") byPoints.finish(false);
    if (mode === "points" && event.key === "Backspace") byPoints.takeBack();
    const by = STEPS[event.key];
    if (!chosen || (document.activeElement !== document.body && document.activeElement !== box.current)) return;
    if (by) {
      event.preventDefault();
      const step = event.shiftKey ? 10 : 1;
      void props.onMove(chosen, [by[0] * step, by[1] * step]);
    }
    if (event.key === "Delete") props.onRemove(chosen);
  });

  return (
    <div
      ref={box}
      tabIndex={0}
      aria-label={`Sheet of ${page.name}, ${page.width_mm} by ${page.height_mm} mm`}
      data-testid="sheet"
      data-scale={view.scale}
      data-origin={`${view.x},${view.y}`}
      className={`relative min-h-0 flex-1 touch-none overflow-hidden bg-[#e9eae2] focus:outline-none ${mode ? "cursor-crosshair" : ""}`}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={giveUp}
      onDoubleClick={() => mode === "points" && byPoints.finish(false)}
    >
      <WorkCanvas
        {...painting}
        label={`${page.name} with ${props.lines.length} lines`}
        testId="sheet-canvas"
        className="absolute inset-0"
      />
      {!mode && chosen?.visible && !shift && (
        <Handles line={chosen} view={view} onDraft={onDraft} onReshape={props.onReshape} toSheet={at} />
      )}
      {mode === "points" && <BegunPoints begun={byPoints.begun} view={view} />}
      {mode && (
        <DrawingNote
          mode={mode}
          pointed={byPoints.pointed}
          onPointed={byPoints.setPointed}
          onDone={() => (byPoints.begun.points.length ? byPoints.finish(false) : onMode(null))}
        />
      )}
      <ViewButtons onZoom={zoom} onWhole={() => setView(null)} />
    </div>
  );
}
