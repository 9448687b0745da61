import type { RefObject } from "react";
import { isTyping, useWindowKey } from "../../shared/ui/keys";
import { useDesk } from "./desk";
import { useLaidPage } from "./laidPage";
import { STILL } from "./moved";
import type { Place } from "./tools/held";
import type { ByPoints } from "./useByPoints";
import { useLineHands } from "./useLineHands";

const STEPS: Record<string, Place> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

interface Sheet {
  box: RefObject<HTMLElement | null>;
  byPoints: ByPoints;
  isHolding: () => boolean;
  giveUp: () => void;
}

/** Keys on the sheet: Escape lets go step by step, arrows move the chosen line, Enter and Backspace serve drawing by points. */
export function useSheetKeys({ box, byPoints, isHolding, giveUp }: Sheet): void {
  const { chosen, together } = useLaidPage();
  const mode = useDesk((desk) => desk.mode);
  const setMode = useDesk((desk) => desk.setMode);
  const choose = useDesk((desk) => desk.choose);
  const { move, remove, moveAll, removeAll } = useLineHands();
  useWindowKey("keydown", (event) => {
    if (isTyping(event)) return;
    if (event.key === "Escape" && !event.defaultPrevented) {
      // an open list or menu takes it for itself; from what is beside the sheet it leads back to the sheet
      const beside = document.activeElement?.closest("aside");
      if (beside) box.current?.focus();
      else if (byPoints.begun.points.length || isHolding()) giveUp();
      else if (mode) setMode(null);
      else choose(null);
    }
    if (mode === "points" && event.key === "Enter") byPoints.finish(false);
    if (mode === "points" && event.key === "Backspace") byPoints.takeBack();
    if (!chosen || (document.activeElement !== document.body && document.activeElement !== box.current)) return;
    const by = STEPS[event.key];
    if (by) {
      event.preventDefault();
      const step = event.shiftKey ? 10 : 1;
      const mm: Place = [by[0] * step, by[1] * step];
      if (together.length) moveAll(together, { ...STILL, by: mm });
      else void move(chosen, mm);
    }
    if (event.key === "Delete" && together.length) removeAll(together);
    else if (event.key === "Delete") remove(chosen);
  });
}
