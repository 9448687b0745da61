import { usePrefetchQuery } from "@tanstack/react-query";
import type { Workshop } from "../../shared/api/client";
import { useMotifs } from "../../shared/api/motifs";
import { focusField, useLetters } from "../../shared/ui/keys";
import { BeginBar } from "./BeginBar";
import { BeginningProvider, useBeginning } from "./beginning";
import { useBringIn } from "./bringIn";
import { FileDrop } from "./FileDrop";
import { OF_MOTIF, OF_PICTURE } from "./letters";
import { MotifList } from "./MotifList";
import { NoMotif } from "./NoMotif";
import { PickUp } from "./PickUp";
import { PictureBench } from "./PictureBench";
import { ScanTray } from "./ScanTray";
import { Starters } from "./Starters";
import { STARTERS } from "./startersQuery";
import { Work } from "./Work";

export function MotifStation({ workshop, id }: { workshop: Workshop; id: number | null }) {
  return (
    <BeginningProvider of={undefined}>
      <FileDrop>
        <Station workshop={workshop} id={id} />
      </FileDrop>
    </BeginningProvider>
  );
}

function Station({ workshop, id }: { workshop: Workshop; id: number | null }) {
  const open = workshop.motifs.find((m) => m.id === id) ?? workshop.motifs[0];
  const motif = useMotifs(open ? [open] : [])?.[0];
  const beginning = useBeginning((now) => now.beginning);
  const original = useBeginning((now) => now.original);
  const begin = useBeginning((now) => now.begin);
  usePrefetchQuery(STARTERS); // they are there when they are asked for
  const { pick } = useBringIn();
  useLetters([
    { letter: "a", words: "starters", act: () => begin("starters") },
    { letter: "b", words: "bring in a file", act: pick },
    { letter: "y", words: "scan tray", act: () => begin("tray") },
    { letter: "u", words: "pick up from a page", act: () => (begin("pick-up"), focusField("Name of the new motif")) },
    ...(original ? OF_PICTURE : OF_MOTIF),
  ]);
  if (motif && !original && beginning !== "pick-up") return <Work key={motif.id} motif={motif} />;
  return (
    <>
      <div className="relative flex min-w-0 flex-1 flex-col">
        <BeginBar />
        {original && <PictureBench key={original.sha} original={original} />}
        {!original && beginning === "pick-up" && <PickUp />}
        {!original && beginning !== "pick-up" && (
          <div className="relative flex-1">
            {beginning === "starters" && <Starters open={null} />}
            {beginning === "tray" && <ScanTray />}
            {open ? <p className="p-8 text-moss">Opening {open.name}…</p> : <NoMotif />}
          </div>
        )}
      </div>
      {!original && (
        <aside aria-label="Motifs" className="flex w-[300px] shrink-0 flex-col border-l border-rule px-4 py-3">
          <MotifList open={open} />
        </aside>
      )}
    </>
  );
}
