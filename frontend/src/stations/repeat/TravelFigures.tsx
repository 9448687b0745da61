import { NumberField } from "../../shared/ui/NumberField";
import { useSaid } from "./openBench";

/** Figures of the travel, and which end it begins at. */
export function TravelFigures() {
  const { edit, settings, bound } = useSaid();
  const { travel } = settings;
  return (
    <div className="mt-1 flex flex-wrap items-baseline gap-x-6 gap-y-1">
      <NumberField compact label="Turn" step={5} standard={0} {...bound("travel", "turn_deg", "turn", "°")} />
      <NumberField compact label="Side shift" step={0.1} standard={0} {...bound("travel", "side_shift_mm", "side shift", "mm")} />
      <NumberField compact label="Starts at" step={1} standard={0} {...bound("travel", "starts_at_mm", "starts at", "mm")} />
      <button
        className="plain-button px-1.5 py-0"
        aria-pressed={!!travel.turn_about}
        onClick={() =>
          edit.set({ travel: { turn_about: !travel.turn_about } }, travel.turn_about ? "laid from the start" : "turned about")
        }
      >
        {travel.turn_about ? "laid from the other end" : "Turn about"}
      </button>
    </div>
  );
}
