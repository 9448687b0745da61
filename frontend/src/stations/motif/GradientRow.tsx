import { useState } from "react";
import type { Edit, Shape } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { ColourField } from "./ColourField";
import { useOpenMotif } from "./openMotif";
import { Row } from "./Row";

type Gradient = NonNullable<Shape["fill_gradient"]>;
type Ends = [Gradient["stops"][number], Gradient["stops"][number]];
type Kind = "linear" | "radial";

const ENDS = ["from", "to"] as const;

/** A gradient over each chosen part: whatever is changed of it acts at once. */
export function GradientRow({ shape }: { shape: Shape }) {
  const { edit, parts } = useOpenMotif();
  const gradient = shape.fill_gradient;
  const [turned, setTurned] = useState(90);
  const kind: Kind = gradient?.kind ?? "linear";
  const angle = gradient?.kind === "linear" ? angleOf(gradient) : turned;
  const ends: Ends = gradient
    ? [gradient.stops[0], gradient.stops[gradient.stops.length - 1]]
    : [
        { offset: 0, colour: "#e8b89a", opacity: 1 },
        { offset: 1, colour: shape.fill ?? "#a63a2f", opacity: 1 },
      ];
  const made = (how: Kind, stops: Ends = ends, angle_deg = angle): Edit => ({
    op: "gradient",
    parts,
    kind: how,
    stops: stops.map((stop, k) => ({ ...stop, offset: k })),
    angle_deg,
    centre_x_pct: 40,
    centre_y_pct: 35,
  });
  const keep = (next: Edit): void => edit.keep(next, { label: "gradient", merge_key: "gradient" });
  const withEnd = (k: number, change: Partial<Ends[number]>): Ends => {
    const next: Ends = [...ends];
    next[k] = { ...next[k], ...change };
    return next;
  };
  return (
    <Row words="Gradient">
      {ENDS.map((end, k) => (
        <span key={end} role="group" aria-label={end} className="flex items-center gap-1.5">
          <ColourField label={end} value={ends[k].colour} onSet={(colour) => keep(made(kind, withEnd(k, { colour })))} />
          <NumberField
            compact
            label="covering"
            unit="%"
            step={5}
            decimals={0}
            value={ends[k].opacity * 100}
            standard={100}
            onDrag={(v) => edit.show(made(kind, withEnd(k, { opacity: share(v) })))}
            onSet={(v) => keep(made(kind, withEnd(k, { opacity: share(v) })))}
            onLeave={edit.drop}
          />
        </span>
      ))}
      <NumberField
        compact
        label="runs at"
        unit="°"
        step={15}
        decimals={0}
        value={angle}
        standard={90}
        onDrag={(v) => edit.show(made("linear", ends, v))}
        onSet={(v) => {
          setTurned(v);
          keep(made("linear", ends, v));
        }}
        onLeave={edit.drop}
      />
      {(["linear", "radial"] as const).map((how) => (
        <button
          key={how}
          className="plain-button px-2 py-0.5 aria-pressed:border-madder aria-pressed:font-semibold"
          aria-pressed={gradient?.kind === how}
          onClick={() => keep(made(how))}
        >
          {how === "linear" ? "Linear" : "Radial"}
        </button>
      ))}
    </Row>
  );
}

const share = (percent: number): number => Math.min(1, Math.max(0, percent / 100));

/** Which way a linear gradient runs, clockwise from the right, ° from 0 to 360. */
function angleOf({ matrix: [a, b] }: Gradient): number {
  return (Math.round((Math.atan2(b, a) * 180) / Math.PI) + 360) % 360;
}
