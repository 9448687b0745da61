import type { Motif } from "../../shared/api/client";
import { useOpenWorkshop } from "../../shared/api/queries";
import { useBeginning } from "./beginning";
import { Bench } from "./Bench";
import { CornerBench } from "./CornerBench";
import { DrawBar } from "./DrawBar";
import { MotifFacts } from "./MotifFacts";
import { MotifList } from "./MotifList";
import { OpenMotifContext, type OpenMotif } from "./openMotif";
import { Questions } from "./Questions";
import { ScanTray } from "./ScanTray";
import { Starters } from "./Starters";
import { useMotifEdit } from "./useMotifEdit";
import { ownParts } from "./view";
import { useWork, WorkProvider } from "./work";
import { WorkBar } from "./WorkBar";

/** One motif at work: the bench, and below it the open question. */
export function Work({ motif }: { motif: Motif }) {
  return (
    <WorkProvider of={motif}>
      <Opened motif={motif} />
    </WorkProvider>
  );
}

function Opened({ motif }: { motif: Motif }) {
  const workshop = useOpenWorkshop();
  const tab = useWork((work) => work.tab);
  const places = useWork((work) => work.places);
  const choosePlaces = useWork((work) => work.choose);
  const corner = useWork((work) => work.corner);
  const cornered = workshop.brushes.find(({ id }) => id === corner?.brush);
  const edit = useMotifEdit(motif, tab === "points" && places.length === 1 ? (ownParts(motif)[places[0]] ?? null) : null);
  const { bench } = edit;
  if (!bench) return <p className="p-8 text-moss">Laying it out…</p>;
  const own = ownParts(bench.motif);
  const open: OpenMotif = {
    workshop,
    motif,
    bench,
    edit,
    parts: places.flatMap((k) => own[k] ?? []),
    choose: (parts, of = bench.motif) => choosePlaces(parts.map((i) => ownParts(of).indexOf(i)).filter((k) => k >= 0)),
  };
  return (
    <OpenMotifContext value={open}>
      <div className="relative flex min-w-0 flex-1 flex-col">
        <WorkBar />
        {cornered && corner ? (
          <CornerBench brush={cornered} role={corner.role} />
        ) : (
          <>
            <Surface open={open} />
            <Questions />
          </>
        )}
      </div>
      <aside
        aria-label="Motifs"
        className="flex w-[322px] shrink-0 flex-col border-l border-rule px-4 py-3 max-[1150px]:w-[292px]"
      >
        <MotifFacts key={`${motif.id} ${motif.name}`} />
        <MotifList open={motif} />
      </aside>
    </OpenMotifContext>
  );
}

/** The bench, and over it what a new motif begins with. */
function Surface({ open }: { open: OpenMotif }) {
  const beginning = useBeginning((now) => now.beginning);
  const drawing = useBeginning((now) => now.drawing);
  return (
    <div className="relative flex min-h-0 flex-1 flex-col">
      {beginning === "starters" && <Starters open={open} />}
      {beginning === "tray" && <ScanTray />}
      {drawing && <DrawBar drawing={drawing} />}
      <Bench />
    </div>
  );
}
