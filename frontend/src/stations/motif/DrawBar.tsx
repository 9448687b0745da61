import { NumberField } from "../../shared/ui/NumberField";
import { useBeginning } from "./beginning";
import { useOpenMotif } from "./openMotif";
import type { Drawing } from "./types";

/** The pen: how wide, what it leaves, and onto what. */
export function DrawBar({ drawing }: { drawing: Drawing }) {
  const { motif } = useOpenMotif();
  const set = useBeginning((now) => now.draw);
  return (
    <div className="absolute top-2 left-1/2 z-10 flex w-max -translate-x-1/2 items-center gap-4 border border-madder bg-work px-4 py-1.5">
      <span className="text-[12.5px]">Draw with pen or mouse; Shift keeps it straight.</span>
      <NumberField
        compact
        label="Pen"
        unit="mm"
        step={0.1}
        value={drawing.width_mm}
        standard={0.8}
        onSet={(v) => v > 0 && set({ ...drawing, width_mm: v })}
      />
      <button
        className="plain-button px-2 py-0.5"
        aria-pressed={drawing.closed}
        onClick={() => set({ ...drawing, closed: !drawing.closed })}
      >
        {drawing.closed ? "fills what it goes round" : "leaves a stroke"}
      </button>
      <button
        className="plain-button px-2 py-0.5"
        aria-pressed={drawing.fresh}
        onClick={() => set({ ...drawing, fresh: !drawing.fresh })}
      >
        {drawing.fresh ? "begins a new motif" : `onto ${motif.name}`}
      </button>
      <button className="plain-button px-2 py-0.5" onClick={() => set(null)}>
        Done
      </button>
    </div>
  );
}
