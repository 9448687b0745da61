import { useState } from "react";
import type { Edit, Motif, MotifBench } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import type { MotifEdit } from "./useMotifEdit";
import { pressed, round, unionBox, withGroup, type ChooseParts } from "./view";

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

export function Row({ words, children }: { words: string; children: React.ReactNode }) {
  return (
    <div className="mb-1.5 flex flex-wrap items-center gap-1.5">
      <span className="w-[104px] shrink-0 text-[12.5px] text-moss">{words}</span>
      {children}
    </div>
  );
}

export function PartList({ bench, parts, onParts }: { bench: MotifBench; parts: number[]; onParts: ChooseParts }) {
  const { shapes } = bench.motif;
  return (
    <ol aria-label="Parts, the topmost first" className="w-[148px] shrink-0 overflow-y-auto border-r border-rule pr-2">
      {shapes
        .map((shape, i) => ({ shape, i }))
        .reverse()
        .filter(({ shape }) => !shape.derived)
        .slice(0, 300)
        .map(({ shape, i }) => (
          <li key={i}>
            <button
              className="flex min-h-6 w-full items-center gap-2 px-1.5 text-left aria-pressed:bg-indigo-wash aria-pressed:font-semibold"
              aria-pressed={parts.includes(i)}
              onClick={(event) => {
                const more = event.shiftKey || event.ctrlKey;
                onParts(
                  more ? [...new Set([...parts, ...withGroup(shapes, i)])].sort((a, b) => a - b) : pressed(shapes, parts, i),
                );
              }}
            >
              <svg aria-hidden width="14" height="14" className="shrink-0">
                <circle
                  cx="7"
                  cy="7"
                  r="5.5"
                  fill={shape.fill ?? "none"}
                  fillOpacity={shape.fill_opacity}
                  stroke={shape.stroke ?? "var(--color-rule)"}
                  strokeWidth="1.5"
                />
              </svg>
              <span className="truncate">{shape.name || `Part ${i + 1}`}</span>
              {shape.group > 0 && <span className="ml-auto text-[11px] text-moss">group {shape.group}</span>}
            </button>
          </li>
        ))}
    </ol>
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

/** A starter's figures, live while they are dragged. */
export function StarterFigures({ bench, edit, group }: { bench: MotifBench; edit: MotifEdit; group: number }) {
  const recipe = bench.motif.recipes.find((r) => r.group === group);
  if (!recipe) return null;
  const change = (name: string, value: number): Edit => ({ op: "figures", group, figures: { [name]: value } });
  return (
    <fieldset className="mt-2 border-t border-rule pt-1.5">
      <legend className="pr-2 text-[12.5px] text-moss">Figures of the {String(recipe.figures.starter).replace("-", " ")}</legend>
      <div className="grid grid-cols-2 gap-x-3">
        {Object.entries(recipe.figures)
          .filter((entry): entry is [string, number] => typeof entry[1] === "number")
          .map(([name, value]) => (
            <NumberField
              key={name}
              label={name[0].toUpperCase() + name.slice(1)}
              unit={UNITS[name] ?? "mm"}
              step={STEPS[name] ?? 0.1}
              value={value}
              onDrag={(v) => edit.show(change(name, v))}
              onSet={(v) => edit.keep(change(name, v), { label: `${name} to ${v}`, merge_key: `figure ${name}` })}
              onLeave={edit.drop}
            />
          ))}
      </div>
    </fieldset>
  );
}

const UNITS: Record<string, string> = { fullest: "%", depth: "", turns: "", points: "", sides: "", lean: "°", angle: "°" };
const STEPS: Record<string, number> = { fullest: 1, points: 1, sides: 1, turns: 0.25, lean: 1, angle: 1, depth: 1 };

function Thin({ bench, edit, parts }: { bench: MotifBench; edit: MotifEdit; parts: number[] }) {
  const [within, setWithin] = useState(0.05);
  return (
    <span className="flex items-baseline gap-1.5">
      <NumberField
        compact
        label="within"
        unit="mm"
        step={0.01}
        decimals={3}
        value={within}
        standard={0.05}
        onDrag={setWithin}
        onSet={setWithin}
      />
      <button
        className="plain-button px-1.5 py-0"
        disabled={!parts.length}
        onClick={() => edit.keep({ op: "thin", parts, tolerance_mm: within }, { label: `thin within ${within} mm` })}
        title={`${bench.weight.points} points now`}
      >
        Thin
      </button>
    </span>
  );
}

function Fray({ edit, parts }: { edit: MotifEdit; parts: number[] }) {
  const [figures, setFigures] = useState({ depth_mm: 0.4, tufts_per_cm: 12, snapped: false, seed: 1 });
  const make = (own: typeof figures): Edit => ({ op: "fray", parts, ...own });
  const set = (more: Partial<typeof figures>, show = false): void => {
    const next = { ...figures, ...more };
    setFigures(next);
    if (show && parts.length) edit.show(make(next));
  };
  return (
    <span className="flex items-baseline gap-1.5">
      <NumberField
        compact
        label="fray by"
        unit="mm"
        step={0.1}
        value={figures.depth_mm}
        standard={0.4}
        onDrag={(v) => set({ depth_mm: v }, true)}
        onSet={(v) => set({ depth_mm: v }, true)}
        onLeave={edit.drop}
      />
      <NumberField
        compact
        label="tufts"
        unit="a cm"
        step={1}
        value={figures.tufts_per_cm}
        standard={12}
        onDrag={(v) => set({ tufts_per_cm: v }, true)}
        onSet={(v) => set({ tufts_per_cm: v }, true)}
        onLeave={edit.drop}
      />
      <button
        className="plain-button px-1.5 py-0"
        aria-pressed={figures.snapped}
        onClick={() => set({ snapped: !figures.snapped }, true)}
      >
        {figures.snapped ? "snapped" : "soft"}
      </button>
      <button className="plain-button px-1.5 py-0" onClick={() => set({ seed: figures.seed + 1 }, true)}>
        other tufts
      </button>
      <button className="plain-button px-1.5 py-0" disabled={!parts.length} onClick={() => edit.keep(make(figures))}>
        Fray
      </button>
    </span>
  );
}
