import { useState } from "react";
import type { Edit, MotifBench } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { PartList } from "./PartList";
import { Row } from "./Row";
import type { MotifEdit } from "./useMotifEdit";
import type { ChooseParts } from "./view";

interface Props {
  bench: MotifBench;
  edit: MotifEdit;
  parts: number[];
  onParts: ChooseParts;
}

export function ColourField({
  label,
  value,
  onDrag,
  onSet,
}: {
  label: string;
  value: string;
  onDrag?: (colour: string) => void;
  onSet: (colour: string) => void;
}) {
  return (
    <label className="flex items-center gap-1.5 text-[12.5px] text-moss">
      {label}
      <input
        type="color"
        aria-label={label}
        value={value}
        className="h-[26px] w-[40px] cursor-pointer border border-rule bg-work p-0.5"
        onInput={(event) => onDrag?.(event.currentTarget.value)}
        onChange={(event) => onSet(event.target.value)}
      />
    </label>
  );
}

/** Fill, stroke, gradients, a back, and light on the chosen parts. */
export function PaintPanel({ bench, edit, parts, onParts }: Props) {
  const shape = bench.motif.shapes[parts[0]];
  const paint = (more: Omit<Extract<Edit, { op: "paint" }>, "op" | "parts">): Edit => ({ op: "paint", parts, ...more });
  const keep = (more: Omit<Extract<Edit, { op: "paint" }>, "op" | "parts">, label: string): void =>
    edit.keep(paint(more), { label, merge_key: label });
  return (
    <div className="flex h-full gap-5">
      <PartList bench={bench} parts={parts} onParts={onParts} />
      <div className="min-w-0 flex-1 overflow-y-auto">
        {!shape && <p className="text-moss">Press a part on the bench or in the list to paint it.</p>}
        {shape && !shape.picture && (
          <>
            <Row words="Fill">
              <ColourField label="Fill colour" value={shape.fill ?? "#ffffff"} onSet={(fill) => keep({ fill }, "fill")} />
              <NumberField
                compact
                label="covers"
                unit="%"
                step={5}
                decimals={0}
                value={(shape.fill_opacity ?? 1) * 100}
                standard={100}
                onDrag={(v) => edit.show(paint({ fill_opacity: v / 100 }))}
                onSet={(v) => keep({ fill_opacity: Math.min(1, Math.max(0, v / 100)) }, "fill covers")}
                onLeave={edit.drop}
              />
              <button
                className="plain-button px-2 py-0.5"
                disabled={!shape.fill || !shape.stroke}
                onClick={() => keep({ fill: "none" }, "no fill")}
              >
                No fill
              </button>
            </Row>
            <Row words="Stroke">
              <ColourField
                label="Stroke colour"
                value={shape.stroke ?? "#20352c"}
                onSet={(stroke) => keep({ stroke }, "stroke")}
              />
              <NumberField
                compact
                label="wide"
                unit="mm"
                step={0.1}
                value={shape.stroke_width || 0.5}
                standard={0.5}
                onDrag={(v) => shape.stroke && v > 0 && edit.show(paint({ stroke_width_mm: v }))}
                onSet={(v) => keep({ stroke: shape.stroke ?? "#20352c", stroke_width_mm: v }, "stroke width")}
                onLeave={edit.drop}
              />
              {(["butt", "round", "square"] as const).map((cap) => (
                <button
                  key={cap}
                  className="plain-button px-2 py-0.5 aria-pressed:border-madder"
                  aria-pressed={!!shape.stroke && shape.cap === cap}
                  disabled={!shape.stroke}
                  onClick={() => keep({ cap }, "stroke ends")}
                >
                  {cap} ends
                </button>
              ))}
              <button
                className="plain-button px-2 py-0.5"
                disabled={!shape.stroke || !shape.fill}
                onClick={() => keep({ stroke: "none" }, "no stroke")}
              >
                No stroke
              </button>
            </Row>
            <GradientRow key={`${bench.motif.id} ${parts.join()}`} shape={shape} edit={edit} parts={parts} />
            <BackRow edit={edit} parts={parts} />
            <LightRow edit={edit} parts={parts} />
          </>
        )}
        {shape?.picture && (
          <p className="text-moss">
            A picture keeps its own colours{shape.picture.stencil ? "; as a stencil it takes the line’s ink" : ""}. Trace it to
            paint its shapes.
          </p>
        )}
      </div>
    </div>
  );
}

function GradientRow({ shape, edit, parts }: { shape: MotifBench["motif"]["shapes"][number]; edit: MotifEdit; parts: number[] }) {
  const stops = shape.fill_gradient?.stops;
  const [from, setFrom] = useState(stops?.[0].colour ?? "#e8b89a");
  const [to, setTo] = useState(stops?.[stops.length - 1].colour ?? shape.fill ?? "#a63a2f");
  const [angle, setAngle] = useState(90);
  const make = (kind: "linear" | "radial", more: { from?: string; to?: string; angle?: number } = {}): Edit => ({
    op: "gradient",
    parts,
    kind,
    stops: [
      { offset: 0, colour: more.from ?? from, opacity: 1 },
      { offset: 1, colour: more.to ?? to, opacity: 1 },
    ],
    angle_deg: more.angle ?? angle,
    centre_x_pct: 40,
    centre_y_pct: 35,
  });
  return (
    <Row words="Gradient">
      <ColourField label="from" value={from} onSet={setFrom} />
      <ColourField label="to" value={to} onSet={setTo} />
      <NumberField
        compact
        label="runs at"
        unit="°"
        step={15}
        decimals={0}
        value={angle}
        standard={90}
        onDrag={(v) => edit.show(make("linear", { angle: v }))}
        onSet={(v) => {
          setAngle(v);
          edit.keep(make("linear", { angle: v }), { label: "gradient", merge_key: "gradient" });
        }}
        onLeave={edit.drop}
      />
      <button className="plain-button px-2 py-0.5" onClick={() => edit.keep(make("linear"))}>
        Linear
      </button>
      <button className="plain-button px-2 py-0.5" onClick={() => edit.keep(make("radial"))}>
        Radial
      </button>
    </Row>
  );
}

function BackRow({ edit, parts }: { edit: MotifEdit; parts: number[] }) {
  const [colour, setColour] = useState("#ffffff");
  const [grow, setGrow] = useState(0);
  return (
    <Row words="Back">
      <ColourField label="Back colour" value={colour} onSet={setColour} />
      <NumberField compact label="grown by" unit="mm" step={0.1} value={grow} standard={0} onSet={setGrow} />
      <button
        className="plain-button px-2 py-0.5"
        onClick={() => edit.keep({ op: "back", parts, colour, grow_mm: grow, fill_holes: true })}
      >
        Put behind
      </button>
      <button
        className="plain-button px-2 py-0.5"
        onClick={() => edit.keep({ op: "back", parts, colour, grow_mm: grow, fill_holes: false })}
      >
        Put behind, holes open
      </button>
    </Row>
  );
}

function LightRow({ edit, parts }: { edit: MotifEdit; parts: number[] }) {
  const [figures, setFigures] = useState({ from_deg: -120, width_mm: 0.4, opacity: 0.5, inset_mm: 0 });
  const make = (kind: "highlight" | "shadow", own = figures): Edit => ({
    op: "light",
    parts,
    kind,
    colour: kind === "highlight" ? "#ffffff" : "#14201b",
    ...own,
  });
  const field = (name: keyof typeof figures, label: string, unit: string, step: number, per = 1) => (
    <NumberField
      compact
      label={label}
      unit={unit}
      step={step}
      value={figures[name] * per}
      onDrag={(v) => edit.show(make("highlight", { ...figures, [name]: v / per }))}
      onSet={(v) => {
        setFigures({ ...figures, [name]: v / per });
        edit.drop();
      }}
      onLeave={edit.drop}
    />
  );
  return (
    <Row words="Light on each">
      {field("from_deg", "from", "°", 15)}
      {field("width_mm", "wide", "mm", 0.1)}
      {field("opacity", "strength", "%", 5, 100)}
      {field("inset_mm", "off the edge", "mm", 0.1)}
      <button className="plain-button px-2 py-0.5" onClick={() => edit.keep(make("highlight"), { label: "highlight" })}>
        Highlight
      </button>
      <button className="plain-button px-2 py-0.5" onClick={() => edit.keep(make("shadow"), { label: "shadow" })}>
        Shadow
      </button>
    </Row>
  );
}
