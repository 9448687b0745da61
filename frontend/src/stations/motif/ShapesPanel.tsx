import type { Edit, Motif } from "../../shared/api/client";
import { useOpenMotif } from "./openMotif";
import { PartFigures } from "./PartFigures";
import { Row } from "./Row";
import { PartList } from "./PartList";
import { Thin, Fray } from "./Thinning";

const LIES = [
  ["Over them", "over"],
  ["Under them", "under"],
  ["Interlocked", "interlocked"],
] as const;

/** The parts in their order, and the work on the chosen ones. */
export function ShapesPanel() {
  const { bench, edit, parts, choose } = useOpenMotif();
  const { motif } = bench;
  const some = parts.length > 0;
  const two = parts.length > 1;
  const act = (label: string, change: Edit, enabled = some, then?: (after: Motif) => void) => (
    <button
      key={label}
      className="plain-button px-1.5 py-0"
      disabled={!enabled || edit.busy}
      onClick={() => edit.keep(change, { then })}
    >
      {label}
    </button>
  );
  const clear = (): void => choose([]);
  const stroked = parts.some((i) => motif.shapes[i]?.stroke);
  return (
    <div className="flex h-full gap-4">
      <PartList />
      <div className="min-w-0 flex-1 overflow-y-auto">
        <Row words="Several into one">
          {act("Join", { op: "combine", parts, way: "join" }, two, clear)}
          {act("Cut out", { op: "combine", parts, way: "cut_out" }, two, clear)}
          {act("Overlap", { op: "combine", parts, way: "overlap" }, two, clear)}
          {act("Exclude", { op: "combine", parts, way: "exclude" }, two, clear)}
          {act("Group", { op: "group", parts }, two)}
          {act(
            "Let go",
            { op: "ungroup", parts },
            parts.some((i) => (motif.shapes[i]?.group ?? 0) > 0),
          )}
        </Row>
        <Row words="Order">
          {act("On top", { op: "order", parts, to: "front" }, some, clear)}
          {act("Up one", { op: "order", parts, to: "forward" }, some, clear)}
          {act("Down one", { op: "order", parts, to: "backward" }, some, clear)}
          {act("Right below", { op: "order", parts, to: "back" }, some, clear)}
        </Row>
        <Row words="Beside neighbours">
          {LIES.map(([words, lies]) =>
            act(
              words,
              { op: "lie", parts, lies },
              parts.some((i) => motif.shapes[i]?.lies !== lies),
            ),
          )}
        </Row>
        <Row words={two ? "Align together" : "Align to frame"}>
          {act("left", { op: "align", parts, to: "left" })}
          {act("middle", { op: "align", parts, to: "middle" })}
          {act("right", { op: "align", parts, to: "right" })}
          {act("top", { op: "align", parts, to: "top" })}
          {act("half-way", { op: "align", parts, to: "centre" })}
          {act("foot", { op: "align", parts, to: "foot" })}
          {act("on the base line", { op: "align", parts, to: "on_base_line" })}
          {act("in the frame", { op: "align", parts, to: "in_frame" })}
        </Row>
        <Row words="Copy, mirror">
          {act(
            "Duplicate",
            { op: "duplicate", parts, dx_mm: 1, dy_mm: 1, copies: 1, turn_deg: 0, scale: 1, about_mm: null },
            some,
            (after) =>
              choose(
                parts.map((_, i) => after.shapes.length - parts.length + i),
                after,
              ),
          )}
          {act("Left–right", { op: "transform", parts, scale_x: -1, scale_y: 1, turn_deg: 0, about_mm: null })}
          {act("Up–down", { op: "transform", parts, scale_x: 1, scale_y: -1, turn_deg: 0, about_mm: null })}
          {act("Other half, left–right", { op: "mirror", parts, side: "left_right" })}
          {act("Other half, up–down", { op: "mirror", parts, side: "up_down" })}
          {act("Delete", { op: "remove", parts }, some && parts.length < motif.shapes.length, clear)}
        </Row>
        <Row words="The rim">
          {act("Stroke to shape", { op: "outline", parts }, stroked, clear)}
          <Thin />
          <Fray />
        </Row>
      </div>
      <PartFigures />
    </div>
  );
}
