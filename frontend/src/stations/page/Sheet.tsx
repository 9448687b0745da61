import { useEffect, useMemo, useRef, useState } from "react";
import type { Line, Motif, Page, Source } from "../../shared/api/client";
import type { Finding, Scene } from "../../shared/api/scenes";
import { isTyping, useWindowKey } from "../../shared/ui/keys";
import type { View } from "../../shared/view/view";
import { useSize, WorkCanvas } from "../../shared/view/WorkCanvas";
import { Handles } from "./Handles";
import type { Mode } from "./types";
import { fitSheet, sheetPoint, zoomed } from "./sheetView";
import { useSheetPaint, type Shift } from "./useSheetPaint";
import { type Points, BegunPoints, DrawingNote } from "./DrawingNotes";

interface Props {
  page: Page;
  lines: Line[];
  scenes: Scene[];
  motifOf: (scene: Scene) => Motif[];
  mode: Mode;
  chosen: Line | null;
  spot: [number, number] | null;
  rings: Finding[];
  draft: { line_id: number | null; source: Source } | null;
  canDraw: boolean;
  onMode: (mode: Mode) => void;
  onChoose: (id: number | null) => void;
  onDraft: (draft: { line_id: number | null; source: Source } | null) => void;
  onDraw: (source: Source) => void;
  onReshape: (line: Line, source: Source, label: string) => void;
  onMove: (line: Line, by: [number, number]) => Promise<unknown>;
  onRemove: (line: Line) => void;
}

type Hold =
  | { kind: "pan"; x: number; y: number; view: View }
  | { kind: "move"; x: number; y: number; line: Line }
  | { kind: "hand"; points: [number, number][] };

const CLOSE_PX = 10;
const NO_RINGS: Finding[] = [];

/** The sheet with its lines: choosing, moving and drawing happen on it. */
export function Sheet(props: Props) {
  const { page, scenes, motifOf, mode, chosen, spot, rings, draft, onDraft, onChoose, onMode } = props;
  const [box, size] = useSize<HTMLDivElement>();
  const [ownView, setView] = useState<View | null>(null);
  const [shift, setShift] = useState<Shift | null>(null);
  const [begun, setBegun] = useState<Points>({ points: [], flowing: [] });
  const [pointed, setPointed] = useState(false);
  const hold = useRef<Hold | null>(null);
  const view = useMemo(() => ownView ?? fitSheet(size, page), [ownView, size, page]);

  const painting = useSheetPaint({ page, scenes, motifOf, chosen, rings: draft ? NO_RINGS : rings, spot }, view, shift);

  // a place outside the window is brought to its middle, once
  const [goneTo, setGoneTo] = useState(spot);
  if (goneTo !== spot) {
    setGoneTo(spot);
    const [x, y] = spot ? [spot[0] * view.scale + view.x, spot[1] * view.scale + view.y] : [size.width / 2, size.height / 2];
    if (spot && (x < 20 || y < 20 || x > size.width - 20 || y > size.height - 20)) {
      setView({ scale: view.scale, x: size.width / 2 - spot[0] * view.scale, y: size.height / 2 - spot[1] * view.scale });
    }
  }

  useEffect(() => {
    const element = box.current!;
    const onWheel = (event: WheelEvent): void => {
      event.preventDefault();
      const rect = element.getBoundingClientRect();
      setView((now) => {
        const from = now ?? fitSheet({ width: element.clientWidth, height: element.clientHeight }, page);
        if (event.ctrlKey)
          return zoomed(from, Math.exp(-event.deltaY / 240), event.clientX - rect.left, event.clientY - rect.top);
        return { ...from, x: from.x - event.deltaX, y: from.y - event.deltaY };
      });
    };
    element.addEventListener("wheel", onWheel, { passive: false });
    return () => element.removeEventListener("wheel", onWheel);
  }, [page, box]);

  const at = (event: { clientX: number; clientY: number }): [number, number] => sheetPoint(event, box.current!, view);

  const tell = (next: Points, tip?: [number, number]): void => {
    setBegun(next);
    const points = tip ? [...next.points, tip] : next.points;
    const flowing = tip ? [...next.flowing, !pointed] : next.flowing;
    onDraft(points.length > 1 ? { line_id: null, source: { kind: "points", points, flowing, closed: false } } : null);
  };
  const finish = (closed: boolean): void => {
    const { points, flowing } = begun;
    setBegun({ points: [], flowing: [] });
    if (points.length > 1) props.onDraw({ kind: "points", points, flowing, closed: closed && points.length > 2 });
    else onDraft(null);
  };
  const giveUp = (): void => {
    hold.current = null;
    setBegun({ points: [], flowing: [] });
    setShift(null);
    onDraft(null);
  };

  const onPointerDown = (event: React.PointerEvent<HTMLDivElement>): void => {
    if (event.button === 1 || (event.button === 0 && event.altKey)) {
      hold.current = { kind: "pan", x: event.clientX, y: event.clientY, view };
    } else if (event.button !== 0) return;
    else if (mode === "hand" && props.canDraw) hold.current = { kind: "hand", points: [at(event)] };
    else if (mode === "points" && props.canDraw) {
      addPoint(event);
      return;
    } else {
      const line = lineAt(event);
      onChoose(line?.id ?? null);
      hold.current = line
        ? { kind: "move", x: event.clientX, y: event.clientY, line }
        : { kind: "pan", x: event.clientX, y: event.clientY, view };
    }
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const onPointerMove = (event: React.PointerEvent<HTMLDivElement>): void => {
    const held = hold.current;
    if (!held) {
      if (mode === "points" && begun.points.length) tell(begun, at(event));
      return;
    }
    const [dx, dy] = "x" in held ? [event.clientX - held.x, event.clientY - held.y] : [0, 0];
    if (held.kind === "pan") setView({ ...held.view, x: held.view.x + dx, y: held.view.y + dy });
    if (held.kind === "move" && Math.hypot(dx, dy) > 3) setShift({ id: held.line.id, by: [dx / view.scale, dy / view.scale] });
    if (held.kind === "hand") {
      const events = event.nativeEvent.getCoalescedEvents?.() ?? [];
      for (const e of events.length ? events : [event.nativeEvent]) {
        const point = at(e);
        const last = held.points[held.points.length - 1];
        if (Math.hypot(point[0] - last[0], point[1] - last[1]) * view.scale >= 1.5) held.points.push(point);
      }
      if (held.points.length > 1)
        onDraft({ line_id: null, source: { kind: "hand", points: [...held.points], straight: event.shiftKey } });
    }
  };
  const onPointerUp = (event: React.PointerEvent<HTMLDivElement>): void => {
    const held = hold.current;
    hold.current = null;
    if (held?.kind === "move" && shift) void props.onMove(held.line, shift.by).finally(() => setShift(null));
    if (held?.kind === "hand") {
      if (held.points.length > 1) props.onDraw({ kind: "hand", points: held.points, straight: event.shiftKey });
      else onDraft(null);
    }
  };
  const addPoint = (event: React.PointerEvent): void => {
    const point = at(event);
    const near = (p: [number, number] | undefined) => p && Math.hypot(p[0] - point[0], p[1] - point[1]) * view.scale < CLOSE_PX;
    if (begun.points.length > 2 && near(begun.points[0])) finish(true);
    else if (near(begun.points[begun.points.length - 1])) finish(false);
    else tell({ points: [...begun.points, point], flowing: [...begun.flowing, !pointed] });
  };
  const lineAt = (event: React.PointerEvent): Line | undefined => {
    const ctx = document.createElement("canvas").getContext("2d")!;
    const [x, y] = at(event);
    for (const scene of [...scenes].reverse()) {
      const height = Math.max(0, ...motifOf(scene).map((m) => m.height_mm));
      ctx.lineWidth = Math.max(12 / view.scale, height * 0.8);
      if (scene.path && ctx.isPointInStroke(new Path2D(scene.path), x, y)) return props.lines.find((l) => l.id === scene.line_id);
    }
    return undefined;
  };

  useWindowKey("keydown", (event) => {
    if (isTyping(event)) return;
    if (event.key === "Escape") {
      if (begun.points.length || hold.current) giveUp();
      else if (mode) onMode(null);
      else onChoose(null);
    }
    if (mode === "points" && event.key === "Enter") finish(false);
    if (mode === "points" && event.key === "Backspace" && begun.points.length) {
      tell({ points: begun.points.slice(0, -1), flowing: begun.flowing.slice(0, -1) });
    }
    const step = event.shiftKey ? 10 : 1;
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key];
    if (document.activeElement !== document.body && document.activeElement !== box.current) return;
    if (chosen && by) {
      event.preventDefault();
      void props.onMove(chosen, by as [number, number]);
    }
    if (chosen && event.key === "Delete") props.onRemove(chosen);
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
      onDoubleClick={() => mode === "points" && finish(false)}
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
      {mode === "points" && <BegunPoints begun={begun} view={view} />}
      {mode && (
        <DrawingNote
          mode={mode}
          pointed={pointed}
          onPointed={setPointed}
          onDone={() => (begun.points.length ? finish(false) : onMode(null))}
        />
      )}
      <div
        className="absolute bottom-2 left-2 flex gap-0.5 border border-rule bg-work"
        onPointerDown={(e) => e.stopPropagation()}
      >
        <button
          className="px-2 py-0.5 hover:text-madder"
          aria-label="Closer"
          onClick={() => setView(zoomed(view, 1.25, size.width / 2, size.height / 2))}
        >
          +
        </button>
        <button
          className="px-2 py-0.5 hover:text-madder"
          aria-label="Further"
          onClick={() => setView(zoomed(view, 0.8, size.width / 2, size.height / 2))}
        >
          −
        </button>
        <button aria-label="Whole sheet" className="px-1.5 py-0.5 text-[12px] hover:text-madder" onClick={() => setView(null)}>
          whole
        </button>
      </div>
    </div>
  );
}
