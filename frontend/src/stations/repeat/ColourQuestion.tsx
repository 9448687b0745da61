import { NumberField } from "../../shared/ui/NumberField";
import { LaidOnAs } from "./LaidOnAs";
import { useSaid } from "./openBench";

/** How the line's colours come to lie on what is below. */
export function ColourQuestion() {
  const { settings, bound } = useSaid();
  const ink = settings.ink ?? {};
  const way = ink.laid_on_as ?? "normal";
  return (
    <div className="flex flex-col gap-1.5">
      <div className="flex flex-wrap items-start gap-x-6 gap-y-1">
        <NumberField
          compact
          label="Ink per piece"
          step={5}
          standard={100}
          {...bound("ink", "per_piece_pct", "ink per piece", "%")}
        />
        <NumberField
          compact
          label="Ceiling of the line"
          step={5}
          standard={100}
          {...bound("ink", "ceiling_pct", "ceiling of the line", "%")}
        />
      </div>
      <LaidOnAs way={way} blends={ink.blends ?? "line"} />
    </div>
  );
}
