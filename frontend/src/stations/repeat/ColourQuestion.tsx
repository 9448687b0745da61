import { Choice } from "../../shared/ui/Choice";
import { NumberField } from "../../shared/ui/NumberField";
import { LaidOnAs } from "./LaidOnAs";
import { useSaid } from "./openBench";

/** How the line's colours come to lie on what is below. */
export function ColourQuestion() {
  const { edit, settings, bound } = useSaid();
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
        {way !== "normal" && (
          <Choice
            small
            side
            label="Laid on is"
            value={ink.blends ?? "line"}
            options={[
              { value: "line", label: "the line as one" },
              { value: "each_piece", label: "each piece" },
            ]}
            onSet={(blends) =>
              edit.set({ ink: { blends } }, blends === "line" ? "the line laid on as one" : "each piece laid on")
            }
          />
        )}
      </div>
      <LaidOnAs way={way} />
    </div>
  );
}
