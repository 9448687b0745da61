import { NumberField } from "../../shared/ui/NumberField";
import { useSaid } from "./openBench";
import { WidthProfile } from "./WidthProfile";

/** What the hand does: tapered ends, and the width along the line. */
export function HandQuestion() {
  const { bound } = useSaid();
  return (
    <div className="flex flex-col gap-2">
      <div className="flex flex-wrap gap-x-6 gap-y-1">
        <NumberField
          compact
          label="Taper at the start"
          step={1}
          standard={0}
          {...bound("hand", "taper_start_mm", "taper at the start", "mm")}
        />
        <NumberField
          compact
          label="at the end"
          step={1}
          standard={0}
          {...bound("hand", "taper_end_mm", "taper at the end", "mm")}
        />
        <NumberField
          compact
          label="Lightest touch"
          step={5}
          standard={20}
          {...bound("hand", "taper_to_pct", "lightest touch", "%")}
        />
      </div>
      <WidthProfile />
    </div>
  );
}
