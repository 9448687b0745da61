import { useRef, useState } from "react";
import { api, kept, Refusal, type Motif, type Original, type Schemas, type Workshop } from "../../shared/api/client";
import { useMotifs } from "../../shared/api/motifs";
import { useChange, useTrouble } from "../../shared/api/queries";
import { useLetters } from "../../shared/ui/keys";
import { NumberField } from "../../shared/ui/NumberField";
import { go } from "../../shared/ui/place";
import { Bench, type Drawing, type Tab } from "./Bench";
import { MotifFacts } from "./MotifFacts";
import { MotifList } from "./MotifList";
import { PaintPanel } from "./PaintPanel";
import { PickUp } from "./PickUp";
import { PictureBench } from "./PictureBench";
import { ScanTray } from "./ScanTray";
import { SeamPanel } from "./SeamPanel";
import { ShapesPanel } from "./ShapesPanel";
import { PointsPanel, SoftPanel } from "./SmallPanels";
import { Starters } from "./Starters";
import { useMotifEdit } from "./useMotifEdit";
import { ownParts, type ChooseParts } from "./view";

const MOST_SVG = 10 * 1024 * 1024;
const MOST_PICTURE = 100 * 1024 * 1024;
const PICTURES = /\.(png|jpe?g|webp|tiff?)$/i;
const TABS: [Tab, string][] = [
  ["cut", "Cut and frame"],
  ["shapes", "Shapes"],
  ["points", "Points"],
  ["paint", "Paint"],
  ["soft", "Soft edge"],
];

type Beginning = "starters" | "tray" | "pick-up" | null;

export function MotifStation({ workshop, id }: { workshop: Workshop; id: number | null }) {
  const open = workshop.motifs.find((m) => m.id === id) ?? workshop.motifs[0];
  const motif = useMotifs(open ? [open] : [])?.[0];
  const file = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const [beginning, setBeginning] = useState<Beginning>(null);
  const [original, setOriginal] = useState<Original | null>(null);
  const [drawing, setDrawing] = useState<Drawing | null>(null);
  const say = useTrouble((s) => s.say);
  const bringIn = useChange((body: Schemas["NewMotif"]) => kept<Motif>(api.POST("/api/motifs", { body })));

  const take = async (chosen: File | undefined): Promise<void> => {
    if (!chosen) return;
    const picture = PICTURES.test(chosen.name) || /^image\/(png|jpeg|webp|tiff)$/.test(chosen.type);
    const most = picture ? MOST_PICTURE : MOST_SVG;
    if (chosen.size > most) {
      say(
        `${chosen.name} is ${(chosen.size / 1048576).toFixed(1)} MB, more than the ${most / 1048576} MB ${picture ? "a picture" : "a drawing"} may have; nothing was brought in`,
      );
      return;
    }
    const name = (
      chosen.name
        .replace(/\.\w+$/i, "")
        .replace(/[-_]+/g, " ")
        .trim() || "Motif"
    ).slice(0, 200);
    if (picture) {
      try {
        setOriginal(await bringInPicture(name, chosen));
        setBeginning(null);
      } catch (why) {
        say((why as Error).message);
      }
    } else bringIn.mutate({ name, svg: await chosen.text(), trim: true }, { onSuccess: (m) => go("motif", m.id) });
  };
  const pickFile = (): void => file.current?.click();
  const begin = (which: Beginning): void => {
    setOriginal(null);
    setBeginning(beginning === which ? null : which);
  };
  useLetters([
    { letter: "a", words: "starters", act: () => begin("starters") },
    { letter: "b", words: "bring in a file", act: pickFile },
    { letter: "y", words: "scan tray", act: () => begin("tray") },
    { letter: "u", words: "pick up from a page", act: () => begin("pick-up") },
  ]);
  const done = (): void => {
    setBeginning(null);
    setOriginal(null);
  };

  return (
    <div
      className="flex h-full"
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        void take(event.dataTransfer.files[0]);
      }}
    >
      <input
        ref={file}
        type="file"
        accept=".svg,image/svg+xml,.png,.jpg,.jpeg,.webp,.tif,.tiff"
        className="hidden"
        data-testid="motif-file"
        onChange={(event) => {
          void take(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      {motif && !original && beginning !== "pick-up" ? (
        <Work
          key={motif.id}
          motif={motif}
          workshop={workshop}
          beginning={beginning}
          begin={begin}
          onFile={pickFile}
          onOriginal={setOriginal}
          drawing={drawing}
          setDrawing={setDrawing}
        />
      ) : (
        <>
          <div className="relative flex min-w-0 flex-1 flex-col">
            <BeginBar beginning={beginning} begin={begin} onFile={pickFile} />
            {original && <PictureBench key={original.sha} original={original} onDone={done} />}
            {!original && beginning === "pick-up" && <PickUp workshop={workshop} onDone={done} />}
            {!original && beginning !== "pick-up" && (
              <div className="relative flex-1">
                {beginning === "starters" && <Starters motif={undefined} edit={null} onDone={done} />}
                {beginning === "tray" && <ScanTray onTaken={setOriginal} onDone={done} />}
                {open ? (
                  <p className="p-8 text-moss">Opening {open.name}…</p>
                ) : (
                  <NoMotif onStarters={() => begin("starters")} onFile={pickFile} />
                )}
              </div>
            )}
          </div>
          {!original && (
            <aside aria-label="Motifs" className="flex w-[300px] shrink-0 flex-col border-l border-rule px-4 py-3">
              <MotifList workshop={workshop} open={open} />
            </aside>
          )}
        </>
      )}
      {over && (
        <p className="pointer-events-none absolute inset-6 z-30 flex items-center justify-center border-2 border-dashed border-madder bg-madder-wash/80 text-lg">
          Let go to bring it in
        </p>
      )}
    </div>
  );
}

async function bringInPicture(name: string, chosen: File): Promise<Original> {
  const reply = await fetch(`/api/originals?name=${encodeURIComponent(name)}`, {
    method: "POST",
    headers: { "Content-Type": "application/octet-stream" },
    body: chosen,
  });
  const answer = await reply.json();
  if (!reply.ok) throw new Refusal(answer.message ?? "the picture was refused", reply.status);
  return answer as Original;
}

interface BeginProps {
  beginning: Beginning;
  begin: (which: Beginning) => void;
  onFile: () => void;
  children?: React.ReactNode;
}

function BeginBar({ beginning, begin, onFile, children }: BeginProps) {
  const way = (words: string, which: Exclude<Beginning, null>) => (
    <button
      className="font-semibold hover:text-madder aria-expanded:text-madder"
      aria-expanded={beginning === which}
      onClick={() => begin(which)}
    >
      {words}
    </button>
  );
  return (
    <header className="flex h-[42px] shrink-0 items-center gap-6 border-b border-rule px-5">
      <span className="text-moss">Begin with</span>
      {way("Starters", "starters")}
      <button className="font-semibold hover:text-madder" onClick={onFile}>
        Bring in
      </button>
      {way("Scan tray", "tray")}
      {way("Pick up from a page", "pick-up")}
      {children}
    </header>
  );
}

interface WorkProps {
  motif: Motif;
  workshop: Workshop;
  beginning: Beginning;
  begin: (which: Beginning) => void;
  onFile: () => void;
  onOriginal: (original: Original) => void;
  drawing: Drawing | null;
  setDrawing: (drawing: Drawing | null) => void;
}

/** One motif at work: the bench, and below it the open question. */
function Work({ motif, workshop, beginning, begin, onFile, onOriginal, drawing, setDrawing }: WorkProps) {
  const [tab, setTab] = useState<Tab>("cut");
  const [parts, setParts] = useState<number[]>(ownParts(motif).length === 1 ? [0] : []); // the only part needs no choosing
  const [nodes, setNodes] = useState<number[]>([]);
  const [contour, setContour] = useState(0);
  const [night, setNight] = useState(false);
  const edit = useMotifEdit(motif, tab === "points" && parts.length === 1 ? (ownParts(motif)[parts[0]] ?? null) : null);
  const { bench } = edit;
  // kept by their place among a motif's own parts: what is derived from them comes and goes
  const own = bench ? ownParts(bench.motif) : [];
  const known = parts.flatMap((k) => own[k] ?? []);
  const choose: ChooseParts = (next, of = bench?.motif) => {
    const places = of ? next.map((i) => ownParts(of).indexOf(i)).filter((k) => k >= 0) : [];
    setParts(tab === "points" ? places.slice(0, 1) : places);
    setNodes([]);
    setContour(0);
  };
  const open = (next: Tab): void => {
    setTab(next);
    if (next === "points") setParts((now) => now.slice(0, 1));
  };
  if (!bench) return <p className="p-8 text-moss">Laying it out…</p>;
  const { weight } = bench;
  return (
    <>
      <div className="relative flex min-w-0 flex-1 flex-col">
        <BeginBar beginning={beginning} begin={begin} onFile={onFile}>
          <button
            className="font-semibold hover:text-madder aria-pressed:text-madder"
            aria-pressed={drawing !== null}
            onClick={() => setDrawing(drawing ? null : { width_mm: 0.8, closed: false, fresh: false })}
          >
            Draw
          </button>
          <span className="ml-auto flex items-baseline gap-3 text-moss">
            <span data-testid="weight">
              {weight.points} points, {weight.word}
            </span>
            <button className="plain-button px-2 py-0.5" aria-pressed={night} onClick={() => setNight(!night)}>
              {night ? "Light ground" : "Dark ground"}
            </button>
          </span>
        </BeginBar>
        <div className="relative flex min-h-0 flex-1 flex-col">
          {beginning === "starters" && <Starters motif={motif} edit={edit} onDone={() => begin(null)} />}
          {beginning === "tray" && <ScanTray onTaken={onOriginal} onDone={() => begin(null)} />}
          {drawing && <DrawBar drawing={drawing} set={setDrawing} name={motif.name} />}
          <Bench
            bench={bench}
            edit={edit}
            tab={tab}
            parts={known}
            onParts={choose}
            nodes={nodes}
            onNodes={setNodes}
            contour={contour}
            onContour={setContour}
            drawing={drawing}
            onDrawing={setDrawing}
            night={night}
          />
        </div>
        <nav aria-label="Work on the motif" className="flex h-[36px] shrink-0 items-center gap-6 border-t border-rule px-5">
          {TABS.map(([key, words]) => (
            <button
              key={key}
              aria-current={tab === key || undefined}
              className="border-b-2 border-transparent pb-0.5 hover:border-rule aria-[current]:border-madder aria-[current]:font-semibold"
              onClick={() => open(key)}
            >
              {words}
            </button>
          ))}
          {edit.refusal && (
            <span role="alert" className="ml-auto truncate text-[12.5px] text-madder">
              {edit.refusal}.
            </span>
          )}
        </nav>
        <section
          aria-label={TABS.find(([key]) => key === tab)![1]}
          className="h-[236px] shrink-0 border-t border-rule bg-work px-5 pt-2 pb-2"
        >
          {weight.warning && <HeavyWarning bench={bench} edit={edit} />}
          {tab === "cut" && <SeamPanel bench={bench} edit={edit} />}
          {tab === "shapes" && <ShapesPanel bench={bench} edit={edit} parts={known} onParts={choose} />}
          {tab === "points" && (
            <PointsPanel
              bench={bench}
              edit={edit}
              parts={known}
              onParts={choose}
              nodes={nodes}
              onNodes={setNodes}
              contour={contour}
            />
          )}
          {tab === "paint" && <PaintPanel bench={bench} edit={edit} parts={known} onParts={choose} />}
          {tab === "soft" && <SoftPanel bench={bench} edit={edit} parts={known} onParts={choose} />}
        </section>
      </div>
      <aside aria-label="Motifs" className="flex w-[322px] shrink-0 flex-col border-l border-rule px-4 py-3">
        <MotifFacts key={`${motif.id} ${motif.name}`} motif={motif} workshop={workshop} bench={bench} edit={edit} />
        <MotifList workshop={workshop} open={motif} />
      </aside>
    </>
  );
}

function HeavyWarning({
  bench,
  edit,
}: {
  bench: NonNullable<ReturnType<typeof useMotifEdit>["bench"]>;
  edit: ReturnType<typeof useMotifEdit>;
}) {
  const { weight, motif } = bench;
  return (
    <p className="mb-1.5 border-l-[3px] border-weld bg-weld-wash px-3 py-1">
      Heavy: {weight.warning}.{" "}
      {weight.thin_mm !== null && (
        <button
          className="thread-word"
          onClick={() =>
            edit.keep(
              { op: "thin", parts: motif.shapes.flatMap((s, i) => (s.derived ? [] : [i])), tolerance_mm: weight.thin_mm! },
              { label: `thin within ${weight.thin_mm} mm` },
            )
          }
        >
          Thin within {weight.thin_mm} mm{weight.thin_points !== null ? `, ${weight.thin_points} points left` : ""}
        </button>
      )}
      {weight.pixels_to !== null && (
        <button
          className="thread-word"
          onClick={() => edit.keep({ op: "lighten", width_px: weight.pixels_to! }, { label: "lighter picture" })}
        >
          Scale the picture to {weight.pixels_to} pixels across
        </button>
      )}
    </p>
  );
}

function DrawBar({ drawing, set, name }: { drawing: Drawing; set: (drawing: Drawing | null) => void; name: string }) {
  return (
    <div className="absolute top-2 left-1/2 z-10 flex w-max -translate-x-1/2 items-center gap-4 border border-madder bg-work px-4 py-1.5">
      <span className="text-[12.5px]">Draw with pen or mouse; Shift keeps it straight.</span>
      <NumberField
        compact
        label="Pen"
        unit="mm"
        step={0.1}
        value={drawing.width_mm}
        standard={0.8}
        onSet={(v) => v > 0 && set({ ...drawing, width_mm: v })}
      />
      <button
        className="plain-button px-2 py-0.5"
        aria-pressed={drawing.closed}
        onClick={() => set({ ...drawing, closed: !drawing.closed })}
      >
        {drawing.closed ? "fills what it goes round" : "leaves a stroke"}
      </button>
      <button
        className="plain-button px-2 py-0.5"
        aria-pressed={drawing.fresh}
        onClick={() => set({ ...drawing, fresh: !drawing.fresh })}
      >
        {drawing.fresh ? "begins a new motif" : `onto ${name}`}
      </button>
      <button className="plain-button px-2 py-0.5" onClick={() => set(null)}>
        Done
      </button>
    </div>
  );
}

function NoMotif({ onStarters, onFile }: { onStarters: () => void; onFile: () => void }) {
  return (
    <div className="mx-auto mt-20 max-w-[52ch]">
      <h2 className="text-xl">No motif yet</h2>
      <p className="my-3">
        A motif is the piece that repeats: one link, leaf or stitch. Begin with a starter and change its figures, or bring in an
        SVG, a scan or a photo.
      </p>
      <button className="firm-button mr-3" onClick={onStarters}>
        Begin with a starter
      </button>
      <button className="plain-button" onClick={onFile}>
        Bring in a file
      </button>
    </div>
  );
}
