import type { Shape } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { ColourField } from "./ColourField";
import { Row } from "./Row";
import { usePaint } from "./usePaint";

export function FillRow({ shape }: { shape: Shape }) {
  const { show, keep, drop } = usePaint();
  return (
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
        onDrag={(v) => show({ fill_opacity: v / 100 })}
        onSet={(v) => keep({ fill_opacity: Math.min(1, Math.max(0, v / 100)) }, "fill covers")}
        onLeave={drop}
      />
      <button
        className="plain-button px-2 py-0.5"
        disabled={!shape.fill || !shape.stroke}
        onClick={() => keep({ fill: "none" }, "no fill")}
      >
        No fill
      </button>
    </Row>
  );
}
