import { useState } from "react";
import type { Edit } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { useOpenMotif } from "./openMotif";

export function Thin() {
  const { bench, edit, parts } = useOpenMotif();
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

export function Fray() {
  const { edit, parts } = useOpenMotif();
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
