import type { Shape } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { ColourField } from "./ColourField";
import { Row } from "./Row";
import { usePaint } from "./usePaint";

export function StrokeRow({ shape }: { shape: Shape }) {
  const { show, keep, drop } = usePaint();
  return (
    <Row words="Stroke">
      <ColourField label="Stroke colour" value={shape.stroke ?? "#20352c"} onSet={(stroke) => keep({ stroke }, "stroke")} />
      <NumberField
        compact
        label="wide"
        unit="mm"
        step={0.1}
        value={shape.stroke_width || 0.5}
        standard={0.5}
        onDrag={(v) => shape.stroke && v > 0 && show({ stroke_width_mm: v })}
        onSet={(v) => keep({ stroke: shape.stroke ?? "#20352c", stroke_width_mm: v }, "stroke width")}
        onLeave={drop}
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
  );
}
