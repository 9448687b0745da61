import { Choice } from "../../shared/ui/Choice";
import { NumberField } from "../../shared/ui/NumberField";
import { PitchFields } from "./PitchFields";
import { EASE_PICTURES, REST_PICTURES } from "./pictures/spacing";
import { useSaid } from "./openBench";

export function OftenQuestion() {
  const { edit, settings, bound } = useSaid();
  const { spacing } = settings;
  const jointed = settings.travel.round_bends === "jointed";
  const eased = settings.travel.kind !== "scattered"; // those lie at even stops, with nothing to fit
  const eases = jointed ? (["leave", "size"] as const) : (["leave", "gaps", "size", "length"] as const);
  return (
    <>
      <div className="mb-3 grid grid-cols-3 gap-x-3">
        <NumberField label="Size" standard={100} {...bound("spacing", "size_pct", "size", "%")} />
        <PitchFields />
      </div>
      {eased && (
        <Choice
          small
          label="Ease"
          value={spacing.ease ?? "leave"}
          options={eases.map((ease) => ({
            value: ease,
            label: ease === "leave" ? "leave it" : `into the ${ease}`,
            picture: EASE_PICTURES[ease],
          }))}
          onSet={(ease) => edit.set({ spacing: { ease } }, `ease ${ease === "leave" ? "left" : `into the ${ease}`}`)}
        />
      )}
      <div className="mt-2 flex gap-6">
        {eased && <NumberField label="Ease limit" standard={10} {...bound("spacing", "ease_limit_pct", "ease limit", "%")} />}
        <Choice
          label="Rest goes"
          value={spacing.rest as "end" | "both" | "start"}
          options={[
            { value: "end", label: "to the end", picture: REST_PICTURES.end },
            { value: "both", label: "both ends", picture: REST_PICTURES.both },
            { value: "start", label: "to the start", picture: REST_PICTURES.start },
          ]}
          onSet={(rest) => edit.set({ spacing: { rest } }, `rest to ${rest === "both" ? "both ends" : `the ${rest}`}`)}
        />
      </div>
    </>
  );
}
