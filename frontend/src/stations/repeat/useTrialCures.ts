import { useState } from "react";
import { api, kept, type Brush, type Schemas } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import type { Cure, Scene } from "../../shared/api/scenes";
import { isTyping, useWindowKey } from "../../shared/ui/keys";
import { go } from "../../shared/ui/place";
import { withChange, type SettingsChange } from "../../shared/ui/settings";
import { useOpenBench } from "./openBench";

/** The findings of a large trial line, and what can be done with them: choose one, see a cure, take it, also on a copy of the brush. */
export function useTrialCures(scene: Scene) {
  const { brush, hands: edit } = useOpenBench();
  const [chosen, setChosen] = useState<number | null>(null);
  const [listed, setListed] = useState<Scene | null>(null); // the findings stay put while a cure is tried
  const shown = listed ?? scene;
  const preview = (cure: Cure | null): void => {
    if (cure?.change.brush) {
      setListed((now) => now ?? scene);
      edit.show(withChange(brush.settings, cure.change.brush));
    } else {
      setListed(null);
      edit.show(null);
    }
  };
  const copy = useChange((body: Schemas["NewBrush"]) => kept<Brush>(api.POST("/api/brushes", { body })));
  const take = (cure: Cure, _of?: number, onCopyFor: number[] | null = null): void => {
    setListed(null);
    setChosen(null);
    if (onCopyFor) {
      edit.show(null);
      copy.mutate({ copy_of: brush.id, settings: cure.change.brush as never }, { onSuccess: (made) => go("repeat", made.id) });
    } else edit.set(cure.change.brush as SettingsChange, cure.label.toLowerCase());
  };
  useWindowKey("keydown", (event) => {
    if (isTyping(event)) return;
    if (event.key === "." && shown.findings.length) setChosen(((chosen ?? -1) + 1) % shown.findings.length);
    const first = chosen !== null && shown.findings[chosen]?.cures[0];
    if (event.key === "Enter" && first && document.activeElement?.tagName !== "BUTTON") take(first);
  });
  return { shown, listed, chosen, choose: setChosen, preview, take };
}
