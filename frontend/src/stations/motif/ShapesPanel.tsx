import type { Edit, Motif, MotifBench } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import type { MotifEdit } from "./useMotifEdit";
import { round, unionBox, type ChooseParts } from "./view";
import { Row } from "./Row";
import { PartList } from "./PartList";
import { StarterFigures } from "./StarterFigures";
import { Thin, Fray } from "./Thinning";

interface Props {
  bench: MotifBench;
  edit: MotifEdit;
  parts: number[];
  onParts: ChooseParts;
}

/** The parts in their order, and the work on the chosen ones. */
export function ShapesPanel({ bench, edit, parts, onParts }: Props) {
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
  const clear = (): void => onParts([]);
  const stroked = parts.some((i) => motif.shapes[i]?.stroke);
  return (
    <div className="flex h-full gap-4">
      <PartList bench={bench} parts={parts} onParts={onParts} />
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
              onParts(
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
          <Thin bench={bench} edit={edit} parts={parts} />
          <Fray edit={edit} parts={parts} />
        </Row>
      </div>
      <PartFigures bench={bench} edit={edit} parts={parts} />
    </div>
  );
}

function PartFigures({ bench, edit, parts }: { bench: MotifBench; edit: MotifEdit; parts: number[] }) {
  const own = parts.flatMap((i) => bench.motif.shapes[i] ?? []);
  const recipe = bench.motif.recipes.find((r) => r.group && own.some((s) => s.group === r.group) && r.kind === "starter");
  if (!own.length)
    return (
      <p className="w-[218px] shrink-0 text-moss">
        Press a part on the bench or in the list; Shift adds another. Then pull it to move, its arrow to size, its ring to turn.
      </p>
    );
  const box = unionBox(own.map((s) => s.box));
  const size = [box[2] - box[0], box[3] - box[1]];
  return (
    <div className="w-[218px] shrink-0 overflow-y-auto">
      <div className="grid grid-cols-2 gap-x-3">
        <NumberField
          label="From the left"
          unit="mm"
          step={0.1}
          value={box[0]}
          onSet={(v) => edit.keep({ op: "move", parts, dx_mm: round(v - box[0], 4), dy_mm: 0 })}
        />
        <NumberField
          label="From the top"
          unit="mm"
          step={0.1}
          value={box[1]}
          onSet={(v) => edit.keep({ op: "move", parts, dx_mm: 0, dy_mm: round(v - box[1], 4) })}
        />
        <NumberField
          label="Long"
          unit="mm"
          step={0.1}
          value={size[0]}
          onSet={(v) =>
            v > 0 &&
            size[0] > 0 &&
            edit.keep({ op: "transform", parts, scale_x: v / size[0], scale_y: 1, turn_deg: 0, about_mm: [box[0], box[1]] })
          }
        />
        <NumberField
          label="High"
          unit="mm"
          step={0.1}
          value={size[1]}
          onSet={(v) =>
            v > 0 &&
            size[1] > 0 &&
            edit.keep({ op: "transform", parts, scale_x: 1, scale_y: v / size[1], turn_deg: 0, about_mm: [box[0], box[1]] })
          }
        />
        <NumberField
          label="Turn by"
          unit="°"
          step={5}
          value={0}
          onSet={(v) => edit.keep({ op: "transform", parts, scale_x: 1, scale_y: 1, turn_deg: v, about_mm: null })}
        />
      </div>
      {recipe && <StarterFigures bench={bench} edit={edit} group={recipe.group} />}
    </div>
  );
}
