import { Choice } from "../../shared/ui/Choice";
import { NumberField } from "../../shared/ui/NumberField";
import { useSaid } from "./openBench";

/** How joins are measured, and from what on they are told as a finding. */
export function JoinsQuestion() {
  const { edit, settings, bound } = useSaid();
  return (
    <div className="flex flex-col gap-2">
      <Choice
        label="Joins are measured by"
        value={settings.joins?.measured_by ?? "frames"}
        options={[
          { value: "frames", label: "the frames' edges" },
          { value: "outlines", label: "what is drawn" },
        ]}
        onSet={(measured_by) => edit.set({ joins: { measured_by } }, `joins by ${measured_by}`)}
      />
      <p className="text-[12.5px] leading-snug text-moss">
        A finding is what strays further than this from the gap you wished for.
      </p>
      <div className="flex flex-wrap gap-x-6 gap-y-1">
        <NumberField
          compact
          label="Gap from"
          step={0.05}
          standard={0.1}
          {...bound("joins", "gap_tolerance_mm", "gap from", "mm")}
        />
        <NumberField
          compact
          label="Kink from"
          step={1}
          standard={15}
          {...bound("joins", "kink_tolerance_deg", "kink from", "°")}
        />
        <NumberField compact label="Tone from" step={0.5} standard={3} {...bound("joins", "tone_tolerance", "tone from", "ΔE")} />
      </div>
    </div>
  );
}
