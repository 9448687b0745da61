import { useState } from "react";
import type { Edit } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { useOpenMotif } from "./openMotif";
import { Row } from "./Row";

/** A light or a shadow along the edge of each chosen part. */
export function LightRow() {
  const { edit, parts } = useOpenMotif();
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
