import type { Cure } from "../../shared/api/scenes";
import { reachOf } from "../../shared/ui/reach";
import { isTyping, useWindowKey } from "../../shared/ui/keys";
import { useDesk } from "./desk";
import { useLaidPage } from "./laidPage";

/** What can be done with the page's findings: go to one, see a cure, take it. */
export function useFindings() {
  const { workshop, lines, changes, findings } = useLaidPage();
  const lookAt = useDesk((desk) => desk.lookAt);
  const tryOut = useDesk((desk) => desk.tryOut);
  const settle = useDesk((desk) => desk.settle);
  return {
    findings,
    goTo: (i: number): void => lookAt(findings[i]?.at ?? null, i),
    preview: (cure: Cure | null, i: number): void => tryOut(cure, i, findings),
    take: (cure: Cure, i: number, onCopyFor: number[] | null = null): void => {
      const line = lines.find((each) => each.id === findings[i].lineId);
      settle();
      if (!line) return;
      const on_copy = onCopyFor && [...new Set(onCopyFor.flatMap((k) => findings[k].lineId ?? []))];
      const label = `${line.name}: ${cure.label.toLowerCase()}${on_copy ? ", on a copy" : ""}`;
      changes.change.mutate({ line, cure: cure.change as never, on_copy, label });
    },
    reachOf: (i: number): string => reachOf(workshop, findings[i].brushId),
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
