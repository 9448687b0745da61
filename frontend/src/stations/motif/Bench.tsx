import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { api, kept, type Motif, type MotifBench, type Schemas } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import { go } from "../../shared/ui/place";
import { stampOf, stampShapes } from "../../shared/view/stamp";
import type { Ctx, View } from "../../shared/view/view";
import type { Paint } from "../../shared/view/layers";
import { useSize, WorkCanvas } from "../../shared/view/WorkCanvas";
import { CutMarks } from "./CutMarks";
import { PartMarks } from "./PartMarks";
import { PointMarks } from "./PointMarks";
import type { MotifEdit } from "./useMotifEdit";
import { benchView, partAt, round, withGroup, type ChooseParts } from "./view";

const PALE = 0.26;

/** The pen in the hand; ``fresh``: the next stroke begins a motif of its own. */
export interface Drawing {
  width_mm: number;
  closed: boolean;
  fresh: boolean;
}

export type Tab = "cut" | "shapes" | "points" | "paint" | "soft";

interface Props {
  bench: MotifBench;
  edit: MotifEdit;
  tab: Tab;
  parts: number[];
  onParts: ChooseParts;
  nodes: number[];
  onNodes: (nodes: number[]) => void;
  contour: number;
  onContour: (contour: number) => void;
  drawing: Drawing | null;
  onDrawing: (drawing: Drawing | null) => void;
  night: boolean;
}

/** The motif large on its frame between its own neighbours, with what belongs to the open question lying on it to drag. */
export function Bench(props: Props) {
  const { bench, edit, tab, parts, drawing, night } = props;
  const [box, size] = useSize<HTMLDivElement>();
  const { motif, pitch_mm } = bench;
  const standing = edit.standing ?? bench;
  const fitted = useMemo(() => benchView(size, standing), [size, standing]);
  const { originX, originY } = edit;
  const view = useMemo(
    () => ({ ...fitted, x: fitted.x + originX * fitted.scale, y: fitted.y + originY * fitted.scale }),
    [fitted, originX, originY],
  );

  const paint = useCallback<Paint>((ctx, area, ratio) => paintBench(ctx, area, ratio, bench, view), [bench, view]);
  const at = (event: React.PointerEvent): [number, number] => {
    const own = box.current!.getBoundingClientRect();
    return [(event.clientX - own.x - view.x) / view.scale, (event.clientY - own.y - view.y) / view.scale];
  };
  const choose = (event: React.PointerEvent): void => {
    if (drawing || tab === "cut" || event.button !== 0) return;
    const found = partAt(motif.shapes, ...at(event), 8 / view.scale);
    if (found === null) return props.onParts([]);
    const own = withGroup(motif.shapes, found);
    const more = event.shiftKey
      ? own.every((i) => parts.includes(i))
        ? parts.filter((i) => !own.includes(i))
        : [...new Set([...parts, ...own])]
      : own;
    props.onParts(more.sort((a, b) => a - b));
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
        <FrameMarks bench={bench} view={view} size={size} night={night} />
        {tab === "cut" && !drawing && <CutMarks bench={bench} edit={edit} view={view} size={size} />}
        {tab === "points" && !drawing && parts.length === 1 && bench.contours && (
          <PointMarks
            contours={bench.contours}
            part={parts[0]}
            edit={edit}
            view={view}
            nodes={props.nodes}
            onNodes={props.onNodes}
            contour={props.contour}
            onContour={props.onContour}
          />
        )}
        {tab !== "cut" && tab !== "points" && !drawing && parts.length > 0 && (
          <PartMarks bench={bench} edit={edit} view={view} parts={parts} />
        )}
      </svg>
      {drawing && <DrawOver view={view} edit={edit} drawing={drawing} set={props.onDrawing} />}
      <p className={`pointer-events-none absolute bottom-2 left-5 text-[12.5px] ${night ? "text-white/75" : "text-moss"}`}>
        Frame {motif.width_mm.toFixed(2)} × {motif.height_mm.toFixed(2)} mm, repeating every {pitch_mm.toFixed(2)} mm.{" "}
        {motif.cuts_mm
          ? "What lies between the tapes repeats, as along the foot."
          : "Neighbours are pale: what is drawn here is always seen repeating."}
      </p>
    </div>
  );
}

function paintBench(ctx: Ctx, area: { width: number; height: number }, ratio: number, bench: MotifBench, view: View): void {
  const { motif, pitch_mm } = bench;
  const stamp = stampOf(motif);
  const [from, to] = motif.cuts_mm ?? [0, motif.width_mm];
  const cut = motif.cuts_mm !== null;
  const put = (shift: number, alpha: number, clip: [number, number] | null): void => {
    ctx.save();
    if (clip) {
      ctx.beginPath();
      ctx.rect(view.x + (clip[0] + shift) * view.scale, 0, (clip[1] - clip[0]) * view.scale, area.height);
      ctx.clip();
    }
    ctx.globalAlpha = alpha;
    const s = view.scale * ratio;
    ctx.setTransform(
      s,
      0,
      0,
      s,
      (view.x + (motif.width_mm / 2 + shift) * view.scale) * ratio,
      (view.y + motif.base_line_mm * view.scale) * ratio,
    );
    stampShapes(ctx, stamp);
    ctx.restore();
  };
  const reach = Math.ceil(area.width / view.scale / pitch_mm / 2) + 1;
  const many = Math.min(reach, 6);
  if (!cut) for (let k = -many; k <= many; k++) if (k) put(k * pitch_mm, PALE, null);
  if (cut) put(0, PALE * 0.8, null);
  put(0, 1, cut ? [from, to] : null);
  if (cut) paintStrip(ctx, area, ratio, bench);
}

const STRIP_PX = 40;

/** What lies between the cuts, repeated small along the foot of the bench. */
function paintStrip(ctx: Ctx, area: { width: number; height: number }, ratio: number, bench: MotifBench): void {
  const { motif, pitch_mm } = bench;
  const from = motif.cuts_mm![0];
  const scale = Math.min(STRIP_PX / motif.height_mm, area.width / (3 * pitch_mm));
  const top = area.height - 36 - motif.height_mm * scale;
  for (let k = 0; k * pitch_mm * scale < area.width; k++) {
    ctx.save();
    ctx.beginPath();
    ctx.rect(k * pitch_mm * scale, top, pitch_mm * scale, motif.height_mm * scale);
    ctx.clip();
    const s = scale * ratio;
    ctx.setTransform(s, 0, 0, s, (k * pitch_mm - from + motif.width_mm / 2) * s, (top + motif.base_line_mm * scale) * ratio);
    stampShapes(ctx, stampOf(motif));
    ctx.restore();
  }
}

function FrameMarks({ bench, view, size, night }: { bench: MotifBench; view: View; size: { width: number }; night: boolean }) {
  const { motif } = bench;
  const [x, y] = [view.x, view.y];
  const ink = night ? "#9db9f0" : "var(--color-indigo)";
  const base = y + motif.base_line_mm * view.scale;
  return (
    <g>
      <rect
        x={x}
        y={y}
        width={motif.width_mm * view.scale}
        height={motif.height_mm * view.scale}
        fill="none"
        stroke={ink}
        strokeWidth="1.1"
      />
      <path
        d={`M0 ${base}H${size.width}`}
        stroke={night ? "#e08a7e" : "var(--color-madder)"}
        strokeDasharray="1.5 4"
        strokeWidth="1.4"
      />
      <text
        x={x + (motif.width_mm * view.scale) / 2}
        y={y + motif.height_mm * view.scale + 17}
        textAnchor="middle"
        fontSize="12.5"
        fill={ink}
      >
        {motif.width_mm.toFixed(2)} mm
      </text>
    </g>
  );
}

/** Draw with the pen or mouse over the bench; what is let go is smoothed and laid on top. */
function DrawOver({
  view,
  edit,
  drawing,
  set,
}: {
  view: View;
  edit: MotifEdit;
  drawing: Drawing;
  set: (drawing: Drawing | null) => void;
}) {
  const stroke = useRef<[number, number][]>([]);
  const [line, setLine] = useState("");
  const begin = useChange((stroke: Schemas["Draw"]) => kept<Motif>(api.POST("/api/motifs/drawn", { body: { stroke } })));
  const at = (event: React.PointerEvent): [number, number] => {
    const own = event.currentTarget.getBoundingClientRect();
    return [round((event.clientX - own.x - view.x) / view.scale), round((event.clientY - own.y - view.y) / view.scale)];
  };
  useEffect(() => {
    const leave = (event: KeyboardEvent): void => {
      if (event.key === "Escape") set(null);
    };
    window.addEventListener("keydown", leave);
    return () => window.removeEventListener("keydown", leave);
  }, [set]);
  const px = ([x, y]: [number, number]): string =>
    `${(view.x + x * view.scale).toFixed(1)} ${(view.y + y * view.scale).toFixed(1)}`;
  return (
    <svg
      data-testid="draw-over"
      className="absolute inset-0 h-full w-full cursor-crosshair touch-none"
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        stroke.current = [at(event)];
        setLine(`M${px(stroke.current[0])}`);
      }}
      onPointerMove={(event) => {
        if (!stroke.current.length) return;
        const place = at(event);
        stroke.current.push(place);
        setLine((now) => `${now}L${px(place)}`);
      }}
      onPointerUp={(event) => {
        const points =
          event.shiftKey && stroke.current.length > 1
            ? [stroke.current[0], stroke.current[stroke.current.length - 1]]
            : stroke.current;
        stroke.current = [];
        setLine("");
        if (points.length < 2) return;
        const drawn = {
          op: "draw",
          points,
          width_mm: drawing.width_mm,
          colour: "#20352c",
          closed: drawing.closed,
          straight: event.shiftKey,
        } as const;
        if (drawing.fresh)
          begin.mutate(drawn, { onSuccess: (made) => (set({ ...drawing, fresh: false }), go("motif", made.id)) });
        else edit.keep(drawn);
      }}
    >
      <path
        d={line}
        fill={drawing.closed ? "#20352c22" : "none"}
        stroke="var(--color-madder)"
        strokeWidth={Math.max(1.5, drawing.width_mm * view.scale)}
        strokeLinecap="round"
        strokeLinejoin="round"
        opacity=".75"
      />
    </svg>
  );
}
