import type { Page, PageLines, Workshop } from "../../shared/api/client";
import { focusField, goesTo, presses, useLetters } from "../../shared/ui/keys";
import { BendStrip } from "./BendStrip";
import { DeskProvider, useDesk } from "./desk";
import { LaidPageContext, useLaidPage, useLaying } from "./laidPage";
import { NoPage } from "./NoPage";
import { Sheet } from "./Sheet";
import { SidePanel } from "./SidePanel";
import { useDealAgain } from "./useDealAgain";
import { useFindingKeys } from "./useFindings";
import { usePageLines } from "./usePage";

export function PageStation({ workshop, id }: { workshop: Workshop; id: number | null }) {
  const page = workshop.pages.find((p) => p.id === id) ?? workshop.pages[0];
  if (!page) return <NoPage />;
  return <OpenPage key={page.id} workshop={workshop} page={page} />;
}

function OpenPage({ workshop, page }: { workshop: Workshop; page: Page }) {
  const { data } = usePageLines(page.id);
  if (!data) return <p className="p-8 text-moss">Opening {page.name}…</p>;
  return (
    <DeskProvider of={data.lines}>
      <Laid workshop={workshop} data={data} />
    </DeskProvider>
  );
}

function Laid({ workshop, data }: { workshop: Workshop; data: PageLines }) {
  const laid = useLaying(workshop, data);
  return (
    <LaidPageContext value={laid}>
      <Desk />
    </LaidPageContext>
  );
}

function Desk() {
  const setMode = useDesk((desk) => desk.setMode);
  const showReady = useDesk((desk) => desk.showReady);
  const { page, chosen } = useLaidPage();
  const { again } = useDealAgain(chosen);
  useLetters([
    { letter: "h", words: "draw by hand", act: () => setMode("hand") },
    { letter: "d", words: "deal the chosen line again", act: again },
    { letter: "o", words: "draw by points", act: () => (setMode("points"), focusField("Points in mm")) },
    { letter: "r", words: "ready lines", act: () => showReady(true) },
    { letter: "x", words: "stop drawing", act: () => setMode(null) },
    presses("v", "bring in SVG", "Bring in SVG"),
    presses("w", "draw with another brush", "Brush for the next line"),
    presses("b", "brush of the line", "Brush:"),
    presses("g", "tune its brush", "tune it at Repeat"),
    goesTo("s", "size of the line", "Size"),
    goesTo("m", "smoothing of the hand", "Smoothing of the hand"),
    goesTo("i", "ink of the line", "Ink"),
    presses("l", "palette", "palette"),
    goesTo("n", "name of the line", "Name of the line"),
    presses("e", "this page and others", page.name),
    presses("f", "whole sheet", "Whole sheet"),
    presses("c", "closer", "Closer"),
    presses("a", "further", "Further"),
    presses("t", "take away", "Take away"),
  ]);
  useFindingKeys();
  return (
    <div className="flex h-full">
      <div className="flex min-w-0 flex-1 flex-col">
        <Sheet />
        <BendStrip />
      </div>
      <SidePanel />
    </div>
  );
}
