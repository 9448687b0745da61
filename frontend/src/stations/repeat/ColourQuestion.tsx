import { Choice } from "../../shared/ui/Choice";
import { NumberField } from "../../shared/ui/NumberField";
import { ColourChips } from "./ColourChips";
import { InkField } from "./InkField";
import { LaidOnAs } from "./LaidOnAs";
import { useSaid } from "./openBench";

/** What the ink gives the artwork, and how the line's colours come to lie on what is below. */
export function ColourQuestion() {
  const { settings, edit, bound } = useSaid();
  const ink = settings.ink ?? {};
  const gives = ink.gives ?? "everything";
  const inked = !!ink.ink && gives !== "nothing";
  return (
    <div className="flex flex-col gap-1">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <InkField
          label="Ink"
          none="own colours"
          value={ink.ink ?? null}
          onSet={(next) => edit.set({ ink: { ink: next } }, next ? `ink ${next}` : "own colours")}
        />
        {inked && (
          <InkField
            label="Second ink"
            none="none"
            value={ink.second_ink ?? null}
            onSet={(next) => edit.set({ ink: { second_ink: next } }, next ? `second ink ${next}` : "no second ink")}
          />
        )}
        <ColourChips />
      </div>
      {ink.ink && (
        <Choice
          small
          side
          label="It gives"
          value={gives}
          options={[
            { value: "everything", label: "everything" },
            { value: "hue_strength", label: "hue and strength" },
            { value: "hue", label: "hue" },
            { value: "nothing", label: "nothing" },
          ]}
          onSet={(next) => edit.set({ ink: { gives: next } }, `the ink gives ${next.replace("_", " and ")}`)}
        />
      )}
      {inked && gives === "hue_strength" && (
        <Choice
          small
          side
          label="Darkest"
          value={ink.darkest ?? "black"}
          options={[
            { value: "black", label: "black" },
            { value: "ink", label: "the ink" },
          ]}
          onSet={(darkest) => edit.set({ ink: { darkest } }, `${darkest} at the darkest`)}
        />
      )}
      <Choice
        small
        side
        label="What shows"
        value={ink.coverage ?? "as_drawn"}
        options={[
          { value: "as_drawn", label: "as drawn" },
          { value: "light_shows", label: "what is light" },
          { value: "dark_shows", label: "what is dark" },
        ]}
        onSet={(coverage) => edit.set({ ink: { coverage } }, coverage.replace("_", " "))}
      />
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
      <LaidOnAs way={ink.laid_on_as ?? "normal"} blends={ink.blends ?? "line"} />
    </div>
  );
}
