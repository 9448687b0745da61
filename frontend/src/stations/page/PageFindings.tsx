import { Findings } from "../../shared/ui/Findings";
import { useDesk } from "./desk";
import { isAwaited, useLaidPage } from "./laidPage";
import { useFindings } from "./useFindings";

/** The findings on the chosen line, or on the page, with their cures. */
export function PageFindings() {
  const { lines, chosen, scenes, cured } = useLaidPage();
  const { findings, goTo, preview, take, reachOf } = useFindings();
  const trying = useDesk((desk) => desk.cure !== null);
  const finding = useDesk((desk) => desk.finding);
  const awaited = (chosen ? [chosen] : lines).some((line) => isAwaited(line, scenes));
  const none = lines.length ? "None: every join keeps its wish." : "Nothing is laid yet.";
  return (
    <>
      <h2 className="mt-2.5 mb-1 shrink-0 truncate text-[15px]">
        Findings {/* one line whatever it says, or the list would slip from under the pointer */}
        <span className={`font-sans text-[12.5px] ${trying ? "font-bold text-madder" : "font-normal text-moss"}`}>
          {trying ? "showing the cure, not yet taken" : chosen ? `on ${chosen.name}` : "on the page"}
        </span>
      </h2>
      <div className="min-h-[60px] flex-1 overflow-y-auto">
        {findings.length ? (
          <Findings
            findings={findings}
            waiting={!cured}
            onPreview={preview}
            onTake={take}
            reachOf={reachOf}
            onGoTo={goTo}
            chosen={finding}
          />
        ) : (
          <p className="text-moss">{awaited ? "Laying it out…" : none}</p>
        )}
      </div>
    </>
  );
}
