import { useLaidPage } from "./laidPage";
import { DrawWith } from "./DrawWith";
import { FirstLine } from "./FirstLine";
import { LineItem } from "./LineItem";
import { LineSettings } from "./LineSettings";
import { LinesTogether } from "./LinesTogether";
import { PageFindings } from "./PageFindings";
import { PageMenu } from "./PageMenu";
import { TakeAway } from "./TakeAway";

/** Beside the sheet: the page, what to draw with, the lines, the chosen one's settings, and the findings. */
export function SidePanel() {
  const { workshop, page, lines, chosen, together } = useLaidPage();
  const front = [...lines].reverse();
  return (
    <aside aria-label="Lines" className="flex w-[352px] shrink-0 flex-col border-l border-rule px-4 pt-2.5 pb-3">
      <div className="mb-2 flex items-center justify-between gap-2">
        <PageMenu workshop={workshop} page={page} />
        <TakeAway page={page} />
      </div>
      <DrawWith />
      <h2 className="mt-2.5 mb-1 text-[15px]">Lines, front to back</h2>
      {!lines.length && <FirstLine />}
      <ul
        className="min-h-[118px] shrink overflow-y-auto border-y border-rule"
        style={{ flexBasis: `min(${chosen ? "23vh" : "34vh"}, ${lines.length * 45 + 2}px)` }}
      >
        {front.map((line, i) => (
          <LineItem key={line.id} line={line} place={i} first={i === 0} last={i === front.length - 1} />
        ))}
      </ul>
      {together.length > 0 && <LinesTogether />}
      {chosen && !together.length && <LineSettings key={chosen.id} line={chosen} />}
      <PageFindings />
    </aside>
  );
}
