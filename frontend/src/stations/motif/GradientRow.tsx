import { useState } from "react";
import type { Edit, Shape } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { ColourField } from "./ColourField";
import { useOpenMotif } from "./openMotif";
import { Row } from "./Row";

/** A gradient over each chosen part. */
export function GradientRow({ shape }: { shape: Shape }) {
  const { edit, parts } = useOpenMotif();
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
