import type { Cure } from "../../shared/api/scenes";
import { isTyping, useWindowKey } from "../../shared/ui/keys";
import { useDesk } from "./desk";
import { useLaidPage } from "./laidPage";

/** What can be done with the page's findings: go to one, see a cure, take it. */
export function useFindings() {
  const { lines, changes, findings } = useLaidPage();
  const lookAt = useDesk((desk) => desk.lookAt);
  const tryOut = useDesk((desk) => desk.tryOut);
  const settle = useDesk((desk) => desk.settle);
  return {
    findings,
    goTo: (i: number): void => lookAt(findings[i]?.at ?? null, i),
    preview: (cure: Cure | null, i: number): void => tryOut(cure, i, findings),
    take: (cure: Cure, i: number): void => {
      const line = lines.find((each) => each.id === findings[i].lineId);
      settle();
      if (line) changes.change.mutate({ line, cure: cure.change as never, label: `${line.name}: ${cure.label.toLowerCase()}` });
    },
  };
}

/** Full stop goes from finding to finding, Enter takes the first cure. */
export function useFindingKeys(): void {
  const { findings, goTo, take } = useFindings();
  const finding = useDesk((desk) => desk.finding);
  const mode = useDesk((desk) => desk.mode);
  useWindowKey("keydown", (event) => {
    if (isTyping(event)) return;
    if (event.key === "." && findings.length) goTo(((finding ?? -1) + 1) % findings.length);
    if (event.key !== "Enter" || mode === "points" || document.activeElement?.tagName === "BUTTON") return;
    const cure = finding !== null && findings[finding]?.cures[0];
    if (cure) take(cure, finding);
  });
}
