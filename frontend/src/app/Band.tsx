import { useIsMutating } from "@tanstack/react-query";
import type { Workshop } from "../shared/api/client";
import { useTrouble } from "../shared/api/queries";
import { go, STATIONS, type Place, type Station } from "../shared/ui/place";
import { useHistorySteps } from "./useHistorySteps";

const NAMES: Record<Station, string> = { motif: "Motif", repeat: "Repeat", page: "Page", shelf: "Shelf" };

/** The one permanent band: name, stations as stitches on a thread, what is open, saved state, undo. */
export function Band({ place, workshop }: { place: Place; workshop: Workshop | undefined }) {
  const steps = useHistorySteps();
  const history = workshop?.history;
  return (
    <header className="flex h-12 shrink-0 items-center gap-5 border-b border-rule bg-chalk px-5 xl:gap-8">
      <h1 className="text-[19px] tracking-tight whitespace-nowrap">Sewn Garland</h1>
      <nav aria-label="Stations" className="relative flex">
        <span aria-hidden className="absolute right-0 bottom-[7px] left-0 border-b border-dashed border-rule" />
        {STATIONS.map((station, i) => (
          <StationStitch key={station} station={station} number={i + 1} current={place.station === station} />
        ))}
      </nav>
      <div className="ml-auto min-w-0 text-right leading-tight whitespace-nowrap">
        <div className="truncate font-semibold" data-testid="open-name">
          {openName(place, workshop)}
        </div>
        <KeptState at={history?.kept_at ?? null} />
      </div>
      <div className="flex min-w-0 shrink-[3] gap-1.5">
        <button
          className="plain-button max-w-[210px] min-w-[90px] truncate"
          disabled={!history?.undo}
          onClick={steps.undo}
          title="Ctrl+Z"
        >
          {history?.undo ? `Undo: ${history.undo}` : "Nothing to undo"}
        </button>
        <button
          className="plain-button max-w-[150px] truncate"
          disabled={!history?.redo}
          onClick={steps.redo}
          title="Ctrl+Shift+Z"
          aria-label={history?.redo ? `Redo: ${history.redo}` : "Nothing to redo"}
        >
          Redo
        </button>
      </div>
    </header>
  );
}

function StationStitch({ station, number, current }: { station: Station; number: number; current: boolean }) {
  const look = current ? "font-bold" : "text-moss hover:text-loden";
  return (
    <button
      className={`relative flex h-12 w-[98px] items-end justify-center gap-2 pb-[11px] ${look}`}
      aria-current={current ? "page" : undefined}
      onClick={() => go(station)}
    >
      {NAMES[station]}
      <kbd className="font-sans text-[11px] font-normal text-moss">{number}</kbd>
      <svg aria-hidden className="absolute bottom-0 left-0" width="98" height="12" viewBox="0 0 98 12">
        {current ? (
          <>
            <path d="M8 5.5H74" stroke="var(--color-madder)" strokeWidth="3" strokeLinecap="round" />
            <path d="M74 5.5C78 5.5 80 4.5 83 3.5" stroke="var(--color-madder)" strokeWidth="1.4" fill="none" />
            <path d="M80 5L97 .5" stroke="var(--color-loden)" strokeWidth="2" strokeLinecap="round" />
            <path d="M81.5 4.5L85 3.6" stroke="var(--color-chalk)" strokeWidth=".9" strokeLinecap="round" />
          </>
        ) : (
          <path d="M16 5.5H82" stroke="var(--color-loden)" strokeWidth="2" strokeLinecap="round" />
        )}
      </svg>
    </button>
  );
}

function KeptState({ at }: { at: number | null }) {
  const changing = useIsMutating();
  const lost = useTrouble((s) => s.message !== null && s.kind === "lost");
  const time = at && new Date(at * 1000).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
  const words = changing
    ? "Keeping…"
    : lost
      ? "The last change was not kept"
      : time
        ? `All changes kept, ${time}`
        : "Nothing changed yet";
  return (
    <div role="status" className="text-[12px] text-moss">
      {words}
    </div>
  );
}

function openName(place: Place, workshop: Workshop | undefined): string {
  if (!workshop || place.station === "shelf") return workshop ? `${workshop.brushes.length} brushes` : "";
  const things = { motif: workshop.motifs, repeat: workshop.brushes, page: workshop.pages }[place.station];
  return (things.find((t) => t.id === place.id) ?? things[0])?.name ?? "";
}
