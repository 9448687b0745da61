import { NumberField } from "../../shared/ui/NumberField";
import { useOpenMotif } from "./openMotif";
import { cutsOf } from "./tools/cut";

/** The cuts, the base line and the motif's length, in figures. */
export function CutFields() {
  const { bench, edit } = useOpenMotif();
  const { motif } = bench;
  const [from, to] = cutsOf(motif);
  return (
    <>
      {([0, 1] as const).map((i) => (
        <NumberField
          compact
          key={i}
          label={i ? "Right cut" : "Left cut"}
          unit="mm"
          step={0.1}
          value={i ? to : from}
          onDrag={(v) => edit.show({ op: "cuts", cuts_mm: i ? [from, v] : [v, to] })}
          onSet={(v) => edit.keep({ op: "cuts", cuts_mm: i ? [from, v] : [v, to] }, { merge_key: `cut ${i}` })}
          onLeave={edit.drop}
        />
      ))}
      <NumberField
        compact
        label="Base line"
        unit="mm"
        step={0.1}
        value={motif.base_line_mm}
        standard={motif.height_mm / 2}
        onDrag={(v) => edit.show({ op: "base_line", base_line_mm: v })}
        onSet={(v) => edit.keep({ op: "base_line", base_line_mm: v }, { merge_key: "base" })}
        onLeave={edit.drop}
      />
      <NumberField
        compact
        label="Length"
        unit="mm"
        step={1}
        value={motif.width_mm}
        onSet={(width_mm) => edit.keep({ op: "resize", width_mm }, { label: `length to ${width_mm} mm`, merge_key: "length" })}
      />
    </>
  );
}
