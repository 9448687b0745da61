import { useMemo, useState } from "react";
import { api, kept, type Page, type PageLines, type Source, type Workshop } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import { useSceneMotifs } from "../../shared/api/motifs";
import { useLay } from "../../shared/api/useLay";
import type { Cure, Scene } from "../../shared/api/scenes";
import { isTyping, useLetters, useWindowKey } from "../../shared/ui/keys";
import { go } from "../../shared/ui/place";
import { BendStrip } from "./BendStrip";
import { Sheet } from "./Sheet";
import type { Mode, PlacedFinding } from "./types";
import { SidePanel } from "./SidePanel";
import { useLineChanges, usePageLines } from "./usePage";

export function PageStation({ workshop, id }: { workshop: Workshop; id: number | null }) {
  const page = workshop.pages.find((p) => p.id === id) ?? workshop.pages[0];
  if (!page) return <NoPage />;
  return <OpenPage key={page.id} workshop={workshop} page={page} />;
}

function NoPage() {
  const make = useChange(() =>
    kept<Page>(api.POST("/api/pages", { body: { name: "First page", width_mm: 297, height_mm: 210, ground: null } })),
  );
  return (
    <div className="mx-auto mt-24 max-w-[56ch]">
      <h2 className="text-xl">No page yet</h2>
      <p className="my-3">A page is a sheet in millimetres on which brushes are laid along lines.</p>
      <button className="firm-button" onClick={() => make.mutate(undefined, { onSuccess: (page) => go("page", page.id) })}>
        Make an A4 page
      </button>
    </div>
  );
}

function OpenPage({ workshop, page }: { workshop: Workshop; page: Page }) {
  const { data } = usePageLines(page.id);
  if (!data) return <p className="p-8 text-moss">Opening {page.name}…</p>;
  return <Desk workshop={workshop} data={data} />;
}

const NONE: Scene[] = [];

function Desk({ workshop, data }: { workshop: Workshop; data: PageLines }) {
  const { page, lines } = data;
  const changes = useLineChanges(page.id);
  const [mode, setMode] = useState<Mode>(null);
  const [chosenId, setChosenId] = useState<number | null>(lines.findLast((l) => l.visible)?.id ?? null);
  const [brushId, setBrushId] = useState<number | null>(null);
  const [draft, setDraft] = useState<{ line_id: number | null; source: Source } | null>(null);
  const [cure, setCure] = useState<{ line_id: number; change: Cure["change"] } | null>(null);
  const [finding, setFinding] = useState<number | null>(null);
  const [spot, setSpot] = useState<[number, number] | null>(null);

  const chosen = lines.find((l) => l.id === chosenId) ?? null;
  const nextBrush = brushId ?? chosen?.brush_id ?? lines[0]?.brush_id ?? workshop.brushes[0]?.id ?? null;
  const versions = [...lines, ...workshop.brushes, ...workshop.motifs].map((v) => v.version).join();
  const asked = useMemo(() => ({ strip: chosenId, draft_cure: cure }), [chosenId, cure]);
  const path = `/api/pages/${page.id}/lay`;
  const base = useLay(`${path}#${versions}`, asked);

  const drafted = useMemo(() => {
    if (!draft) return null;
    const of = lines.find((l) => l.id === draft.line_id);
    const brush_id = of?.brush_id ?? nextBrush;
    if (!brush_id) return null;
    return {
      only: draft.line_id ? [draft.line_id] : [],
      draft: { ...draft, brush_id, size_pct: of?.size_pct ?? 100, ink: of?.ink ?? null },
    };
  }, [draft, lines, nextBrush]);
  const over = useLay(drafted ? path : null, drafted, { cures: false });

  const laid = base.laid?.scenes ?? NONE;
  const trying = (draft && over.laid?.scenes) || NONE;
  const scenes = useMemo(
    () => [...laid.map((s) => trying.find((t) => t.key === s.key) ?? s), ...trying.filter((t) => t.key === "draft")],
    [laid, trying],
  );
  const motifOf = useSceneMotifs(scenes);

  // while a cure is tried out the list stays as it was, so that the pointer does not lose its place
  const [heldFindings, setHeld] = useState<PlacedFinding[] | null>(null);
  const current = laid
    .filter((s) => chosenId === null || s.line_id === chosenId)
    .flatMap((s) => s.findings.map((f): PlacedFinding => ({ ...f, lineId: s.line_id! })));
  const findings = heldFindings ?? current;

  const goToFinding = (i: number): void => {
    setFinding(i);
    setSpot(findings[i]?.at ?? null);
  };
  const take = (which: Cure, i: number): void => {
    const line = lines.find((l) => l.id === findings[i].lineId);
    setCure(null);
    setHeld(null);
    setFinding(null);
    setSpot(null);
    if (line) changes.change.mutate({ line, cure: which.change as never, label: `${line.name}: ${which.label.toLowerCase()}` });
  };

  useLetters([
    { letter: "d", words: "draw by hand", act: () => setMode("hand") },
    { letter: "o", words: "draw by points", act: () => setMode("points") },
    { letter: "x", words: "stop drawing", act: () => setMode(null) },
  ]);
  useWindowKey("keydown", (event) => {
    if (isTyping(event)) return;
    if (event.key === "." && findings.length) goToFinding(((finding ?? -1) + 1) % findings.length);
    if (
      event.key === "Enter" &&
      finding !== null &&
      findings[finding]?.cures[0] &&
      document.activeElement?.tagName !== "BUTTON" &&
      mode !== "points"
    ) {
      take(findings[finding].cures[0], finding);
    }
  });

  return (
    <div className="flex h-full">
      <div className="flex min-w-0 flex-1 flex-col">
        <Sheet
          page={page}
          lines={lines}
          scenes={scenes}
          motifOf={motifOf}
          mode={mode}
          chosen={chosen}
          spot={spot}
          rings={cure ? [] : findings}
          draft={draft}
          canDraw={nextBrush !== null}
          onMode={setMode}
          onChoose={(id) => {
            setChosenId(id);
            setFinding(null);
            setSpot(null);
          }}
          onDraft={setDraft}
          onDraw={(source) =>
            changes.draw.mutate(
              { brush_id: nextBrush!, source },
              { onSuccess: (line) => setChosenId(line.id), onSettled: () => setDraft(null) },
            )
          }
          onReshape={(line, source, label) =>
            changes.change.mutate({ line, source: source as never, label }, { onSettled: () => setDraft(null) })
          }
          onMove={(line, by) =>
            changes.change.mutateAsync({ line, move_by: by, label: `move ${line.name}`, merge_key: `move ${line.id}` })
          }
          onRemove={(line) => changes.remove.mutate(line)}
        />
        <BendStrip
          scene={laid.find((s) => s.line_id === chosenId)}
          strip={laid.find((s) => s.strip)?.strip ?? null}
          line={chosen}
          onSpot={setSpot}
        />
      </div>
      <SidePanel
        workshop={workshop}
        page={page}
        lines={lines}
        scenes={laid}
        chosen={chosen}
        mode={mode}
        brushId={nextBrush}
        findings={findings}
        finding={finding}
        waiting={!base.cured}
        trying={cure !== null}
        changes={changes}
        onMode={setMode}
        onBrush={setBrushId}
        onChoose={setChosenId}
        onGoToFinding={goToFinding}
        onPreview={(which, i) => {
          setHeld(which ? findings : null);
          setCure(which ? { line_id: findings[i].lineId, change: which.change } : null);
        }}
        onTake={take}
      />
    </div>
  );
}
