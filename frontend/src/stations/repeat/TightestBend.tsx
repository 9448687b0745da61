import type { Settings } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { useLaidBench, useOpenBench } from "./openBench";

/** The tightest bend that the brush can take, and what goes wrong below it. */
export function TightestBend({ scene }: { scene: Scene }) {
  const { night } = useOpenBench().ground;
  const { shown } = useLaidBench();
  return (
    <div className="absolute right-5 bottom-4 w-[228px]">
      <p className={`text-[12px] ${night ? "text-white/75" : "text-moss"}`}>Tightest bend it can take</p>
      <p className="text-[23px] leading-tight font-bold" data-testid="safe-radius">
        {scene.safe_mm === null ? "any bend" : `radius ${scene.safe_mm.toFixed(1)} mm`}
      </p>
      <p className={`text-[12px] ${night ? "text-white/75" : "text-moss"}`}>{why(scene, shown)}</p>
    </div>
  );
}

function why(scene: Scene, settings: Settings): string {
  if (scene.safe_mm !== null) return needs(settings, scene.apart ?? false);
  return scene.loose ? "its pieces lie loosely" : "the pieces do not turn with the line";
}

/** Say what goes wrong in tighter bends; pieces that stand apart have only their gap to lose. */
function needs({ travel, joins }: Settings, apart: boolean): string {
  if (travel.round_bends === "bent") return "below it a piece folds over itself";
  if (travel.round_bends === "jointed") return "below it a link is too long to pass";
  const gap = joins?.gap_tolerance_mm ?? 0.1;
  if (apart) return `below it a gap opens or closes by ${gap} mm`;
  return `below it a join opens, closes or kinks beyond ${gap} mm or ${joins?.kink_tolerance_deg ?? 15}°`;
}
