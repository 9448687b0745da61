import { useState } from "react";
import { type Motif, type Original, type Workshop } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { Bench } from "./Bench";
import type { Drawing, Tab } from "./types";
import { MotifFacts } from "./MotifFacts";
import { MotifList } from "./MotifList";
import { PaintPanel } from "./PaintPanel";
import { ScanTray } from "./ScanTray";
import { SeamPanel } from "./SeamPanel";
import { ShapesPanel } from "./ShapesPanel";
import { PointsPanel, SoftPanel } from "./SmallPanels";
import { Starters } from "./Starters";
import { useMotifEdit } from "./useMotifEdit";
import { ownParts, type ChooseParts } from "./view";
import { type Beginning, BeginBar } from "./BeginBar";

const TABS: [Tab, string][] = [
  ["cut", "Cut and frame"],
  ["shapes", "Shapes"],
  ["points", "Points"],
  ["paint", "Paint"],
  ["soft", "Soft edge"],
];

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
export function Work({ motif, workshop, beginning, begin, onFile, onOriginal, drawing, setDrawing }: WorkProps) {
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
