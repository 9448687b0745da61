import { useEffect, useRef, useState } from "react";
import { api, kept, type Original, type Preparation, type Schemas } from "../../shared/api/client";
import { refresh, useTrouble } from "../../shared/api/queries";
import { AskChannel } from "../../shared/api/asking";
import { Choice } from "../../shared/ui/Choice";
import { NumberField } from "../../shared/ui/NumberField";
import { go } from "../../shared/ui/place";
import { useSize } from "../../shared/view/WorkCanvas";
import { ColourField } from "./PaintPanel";
import { Repeating } from "./Starters";

type Preview = Schemas["PreviewMessage"];
type Job = Schemas["JobMessage"];
type Hand = "region" | "belongs" | "belongs_not" | "colour";

const PLAIN: Preparation = {
  region: null,
  clear: null,
  tolerance: 12,
  belongs: [],
  belongs_not: [],
  mark_px: 16,
  fade_rim_pct: 0,
  fade_corner_pct: 0,
  coverage: null,
  stencil: false,
  back_white: false,
  trim: true,
  trace: null,
  threshold: null,
  colours: 4,
  least_speck_px: 24,
  sharpness: 0.5,
  width_mm: null,
  dpi: null,
};

/** A picture on its way to a motif: what is taken of it, what is cleared, and the motif it would give, repeating. */
export function PictureBench({ original, onDone }: { original: Original; onDone: () => void }) {
  const [how, setHow] = useState<Preparation>(PLAIN);
  const [hand, setHand] = useState<Hand>("region");
  const [name, setName] = useState(original.name);
  const set = (more: Partial<Preparation>): void => setHow((now) => ({ ...now, ...more }));
  const { preview, refusal, busy } = usePreview(original.sha, how);
  const { job, start, stop } = useMaking(original.sha, onDone);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex min-h-0 flex-1">
        <Source original={original} how={how} hand={hand} set={set} frame={preview?.frame_px} />
        <section aria-label="The motif it gives" className="flex w-[350px] shrink-0 flex-col border-l border-rule bg-work p-3">
          <h3 className="text-[14px]">The motif it gives, repeating</h3>
          <div className="weave my-2 min-h-0 flex-1 border border-rule" data-testid="picture-preview">
            {preview && <Repeating motif={preview.motif} />}
          </div>
          <p className="min-h-[38px] text-[12.5px]" data-testid="preview-figures">
            {refusal ? <span className="text-madder">{refusal}.</span> : preview ? figures(preview) : "Working it out…"}
            {busy && preview && <span className="text-moss"> Working it out anew…</span>}
          </p>
          {preview?.motif.left_out.map((sentence) => (
            <p key={sentence} className="text-[12px] text-moss">
              {sentence}
            </p>
          ))}
        </section>
      </div>
      <div className="grid h-[242px] shrink-0 grid-cols-[1fr_1fr_1fr_236px] gap-x-6 overflow-y-auto border-t border-rule bg-work px-5 py-2">
        <ClearFields how={how} set={set} hand={hand} setHand={setHand} />
        <KeepFields how={how} set={set} />
        <TraceFields how={how} set={set} />
        <div className="flex flex-col gap-2">
          <NumberField
            label="Length of the motif"
            unit="mm"
            step={1}
            value={how.width_mm ?? preview?.motif.width_mm ?? 0}
            onSet={(width_mm) => set({ width_mm })}
          />
          <input
            aria-label="Name of the new motif"
            className="border-b-[1.5px] border-loden"
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
          {job ? (
            <div role="status" className="text-[12.5px]">
              <progress className="w-full" max={1} value={job.share} aria-label="Progress" />
              {Math.round(job.share * 100)} %
              <button className="plain-button ml-2" onClick={stop}>
                Stop
              </button>
            </div>
          ) : (
            <button
              className="firm-button"
              disabled={!preview || refusal !== null}
              onClick={() => start(name.trim() || original.name, how)}
            >
              Make the motif
            </button>
          )}
          <button className="plain-button" onClick={onDone}>
            Leave the picture
          </button>
          <p className="text-[11.5px] text-moss">
            {original.width_px} × {original.height_px} pixels
            {original.dpi ? `, ${original.dpi} dpi` : ", no size of its own: 96 to the inch"}. {original.told.join(" ")}
          </p>
        </div>
      </div>
    </div>
  );
}

function figures(preview: Preview): string {
  const { motif } = preview;
  const size = `${motif.width_mm.toFixed(1)} × ${motif.height_mm.toFixed(1)} mm`;
  return preview.deviation_mm === null
    ? `A picture of ${size}.`
    : `${preview.points} points, within ${preview.deviation_mm.toFixed(3)} mm of the picture; ${size}.`;
}

function usePreview(sha: string, how: Preparation) {
  const asked = JSON.stringify(how);
  const [answer, setAnswer] = useState<{ asked: string; preview: Preview | null; refusal: string | null } | null>(null);
  const channel = useRef<AskChannel<Preview> | null>(null);
  useEffect(() => {
    channel.current = new AskChannel((reply) => reply.json() as Promise<Preview>);
    return () => channel.current?.close();
  }, []);
  useEffect(() => {
    channel.current?.ask(
      `/api/originals/${sha}/preview`,
      { preparation: JSON.parse(asked) },
      (preview) => setAnswer({ asked, preview, refusal: null }),
      (why) => setAnswer((now) => ({ asked, preview: now?.preview ?? null, refusal: why.message })),
    );
  }, [sha, asked]);
  return { preview: answer?.preview ?? null, refusal: answer?.refusal ?? null, busy: answer?.asked !== asked };
}

const ASK_EVERY_MS = 150;

/** Make the motif as a job, ask how far it is, and go there when it is done. */
function useMaking(sha: string, onDone: () => void) {
  const [job, setJob] = useState<Job | null>(null);
  const say = useTrouble((s) => s.say);
  const here = useRef(true);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
    };
  }, []);
  const make = async (name: string, preparation: Preparation): Promise<void> => {
    let now = await kept<Job>(api.POST("/api/originals/{sha}/motif", { params: { path: { sha } }, body: { name, preparation } }));
    while (here.current && (now.state === "waiting" || now.state === "working")) {
      setJob(now);
      await new Promise((then) => setTimeout(then, ASK_EVERY_MS));
      now = await kept<Job>(api.GET("/api/jobs/{id}", { params: { path: { id: now.id } } }));
    }
    if (!here.current) return;
    setJob(null);
    if (now.state === "failed") say(now.message ?? "it failed; nothing was kept");
    if (now.state !== "done" || !now.motif_id) return;
    await refresh();
    go("motif", now.motif_id);
    onDone();
  };
  return {
    job,
    start: (name: string, preparation: Preparation): void => {
      make(name, preparation).catch((why: Error) => {
        setJob(null);
        say(why.message);
      });
    },
    stop: (): void => void (job && api.DELETE("/api/jobs/{id}", { params: { path: { id: job.id } } })),
  };
}

interface SourceProps {
  original: Original;
  how: Preparation;
  hand: Hand;
  set: (more: Partial<Preparation>) => void;
  frame: Preview["frame_px"] | undefined;
}

/** The picture itself: pull a region over it, mark what belongs, pick a colour. */
function Source({ original, how, hand, set, frame }: SourceProps) {
  const [box, size] = useSize<HTMLDivElement>();
  const picture = useRef<HTMLImageElement>(null);
  const scale = Math.min((size.width - 30) / original.width_px, (size.height - 30) / original.height_px) || 1;
  const [left, top] = [(size.width - original.width_px * scale) / 2, (size.height - original.height_px * scale) / 2];
  const from = useRef<[number, number] | null>(null);
  const [pulled, setPulled] = useState<Preparation["region"]>(null);
  const region = pulled ?? how.region;
  const at = (event: React.PointerEvent): [number, number] => {
    const own = event.currentTarget.getBoundingClientRect();
    const clamp = (v: number, most: number): number => Math.round(Math.max(0, Math.min(most, v)));
    return [
      clamp((event.clientX - own.x) / scale, original.width_px),
      clamp((event.clientY - own.y) / scale, original.height_px),
    ];
  };
  const between = (a: [number, number], b: [number, number]): Preparation["region"] => [
    Math.min(a[0], b[0]),
    Math.min(a[1], b[1]),
    Math.abs(a[0] - b[0]),
    Math.abs(a[1] - b[1]),
  ];
  const mark = (place: [number, number]): void => {
    const key = hand === "belongs" ? "belongs" : "belongs_not";
    set({ [key]: [...(how[key] ?? []), place], mark_px: Math.max(4, Math.round(10 / scale)) });
  };
  return (
    <div ref={box} className="weave relative min-w-0 flex-1">
      <div
        data-testid="picture-source"
        data-scale={scale}
        className="absolute cursor-crosshair touch-none"
        style={{ left, top, width: original.width_px * scale, height: original.height_px * scale }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          from.current = at(event);
          if (hand === "colour" && picture.current) set({ clear: colourAt(picture.current, from.current, original) });
          else if (hand !== "region") mark(from.current);
        }}
        onPointerMove={(event) => {
          if (!from.current || hand === "colour") return;
          const place = at(event);
          if (hand === "region") setPulled(between(from.current, place));
          else if (Math.hypot(place[0] - from.current[0], place[1] - from.current[1]) > 8 / scale) mark((from.current = place));
        }}
        onPointerUp={(event) => {
          const first = from.current;
          from.current = null;
          if (hand !== "region" || !first) return;
          const own = between(first, at(event));
          setPulled(null);
          set({ region: own && own[2] > 3 && own[3] > 3 ? own : null });
        }}
      >
        <img
          ref={picture}
          alt={original.name}
          draggable={false}
          className="pointer-events-none h-full w-full"
          src={`/api/originals/${original.sha}/shown.png`}
        />
        <svg className="pointer-events-none absolute inset-0 h-full w-full overflow-visible">
          {region && (
            <rect
              x={region[0] * scale}
              y={region[1] * scale}
              width={region[2] * scale}
              height={region[3] * scale}
              fill="none"
              stroke="var(--color-madder)"
              strokeWidth="1.6"
              strokeDasharray="6 3"
            />
          )}
          {frame && (
            <rect
              x={frame[0] * scale}
              y={frame[1] * scale}
              width={frame[2] * scale}
              height={frame[3] * scale}
              fill="none"
              stroke="var(--color-indigo)"
              strokeWidth="1.2"
            />
          )}
          {how.belongs?.map(([x, y], i) => (
            <path
              key={`b${i}`}
              d={`M${x * scale - 5} ${y * scale}h10M${x * scale} ${y * scale - 5}v10`}
              stroke="#0b6b3a"
              strokeWidth="3"
            />
          ))}
          {how.belongs_not?.map(([x, y], i) => (
            <path key={`n${i}`} d={`M${x * scale - 5} ${y * scale}h10`} stroke="var(--color-madder)" strokeWidth="3" />
          ))}
        </svg>
      </div>
      <p className="absolute bottom-1 left-4 bg-work/80 px-1 text-[12.5px] text-moss">
        {
          {
            region: "Pull over the part to take; a short press takes all.",
            belongs: "Mark what belongs to the thing.",
            belongs_not: "Mark what does not belong.",
            colour: "Press the colour to clear.",
          }[hand]
        }
      </p>
    </div>
  );
}

function colourAt(image: HTMLImageElement, place: [number, number], original: Original): string {
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = 1;
  const ctx = canvas.getContext("2d")!;
  const ratio = image.naturalWidth / original.width_px;
  ctx.drawImage(image, Math.floor(place[0] * ratio), Math.floor(place[1] * ratio), 1, 1, 0, 0, 1, 1);
  const [r, g, b] = ctx.getImageData(0, 0, 1, 1).data;
  return `#${[r, g, b].map((v) => v.toString(16).padStart(2, "0")).join("")}`;
}

interface FieldsProps {
  how: Preparation;
  set: (more: Partial<Preparation>) => void;
}

function ClearFields({ how, set, hand, setHand }: FieldsProps & { hand: Hand; setHand: (hand: Hand) => void }) {
  const picked = how.clear?.startsWith("#") ? how.clear : null;
  const tool = (words: string, which: Hand) => (
    <button
      className="plain-button px-2 py-0.5 aria-pressed:border-madder aria-pressed:font-semibold"
      aria-pressed={hand === which}
      onClick={() => setHand(which)}
    >
      {words}
    </button>
  );
  return (
    <div>
      <Choice
        label="What turns clear"
        value={picked ? "colour" : (how.clear ?? "none")}
        options={[
          { value: "none", label: "nothing" },
          { value: "background", label: "the background" },
          { value: "white", label: "white" },
          { value: "colour", label: "a colour" },
        ]}
        onSet={(which) => {
          setHand(which === "colour" ? "colour" : "region");
          set({ clear: which === "none" ? null : which === "colour" ? (picked ?? "#ffffff") : which });
        }}
      />
      <div className="mt-1 flex items-end gap-3">
        <NumberField
          label="Tolerance"
          unit=""
          step={1}
          decimals={0}
          value={how.tolerance ?? 12}
          standard={12}
          onDrag={(tolerance) => set({ tolerance: Math.max(0, Math.min(150, tolerance)) })}
          onSet={(tolerance) => set({ tolerance: Math.max(0, Math.min(150, tolerance)) })}
        />
        {picked && <ColourField label="Colour to clear" value={picked} onSet={(clear) => set({ clear })} />}
      </div>
      <span className="mt-1 block text-[12.5px] text-moss">On the picture</span>
      <div className="flex flex-wrap gap-1.5">
        {tool("Region", "region")}
        {tool("Belongs", "belongs")}
        {tool("Does not belong", "belongs_not")}
        <button
          className="plain-button px-2 py-0.5"
          disabled={!how.belongs?.length && !how.belongs_not?.length}
          onClick={() => set({ belongs: [], belongs_not: [] })}
        >
          No marks
        </button>
      </div>
      <p className="mt-1 text-[11.5px] text-moss">Marks lift a thing out of its background: a few on it, a few beside it.</p>
    </div>
  );
}

function KeepFields({ how, set }: FieldsProps) {
  const way = how.coverage ?? (how.stencil ? "stencil" : "colours");
  return (
    <div>
      <Choice
        label="The picture gives"
        value={way as "colours" | "stencil" | "light" | "dark"}
        options={[
          { value: "colours", label: "its colours" },
          { value: "stencil", label: "a stencil" },
          { value: "dark", label: "dark covers" },
          { value: "light", label: "light covers" },
        ]}
        onSet={(next) => set({ stencil: next === "stencil", coverage: next === "light" || next === "dark" ? next : null })}
      />
      <div className="mt-1 flex gap-4">
        <NumberField
          label="Fade the rim"
          unit="%"
          step={2}
          decimals={0}
          value={how.fade_rim_pct ?? 0}
          standard={0}
          onDrag={(v) => set({ fade_rim_pct: clampPct(v, 100) })}
          onSet={(v) => set({ fade_rim_pct: clampPct(v, 100) })}
        />
        <NumberField
          label="Round the corners"
          unit="%"
          step={2}
          decimals={0}
          value={how.fade_corner_pct ?? 0}
          standard={0}
          onDrag={(v) => set({ fade_corner_pct: clampPct(v, 50) })}
          onSet={(v) => set({ fade_corner_pct: clampPct(v, 50) })}
        />
      </div>
      <label className="mt-1 flex min-h-[26px] items-center gap-1.5">
        <input
          type="checkbox"
          className="h-[18px] w-[18px]"
          checked={how.trim}
          onChange={(e) => set({ trim: e.target.checked })}
        />{" "}
        Trim the empty margin
      </label>
      <label className="flex min-h-[26px] items-center gap-1.5">
        <input
          type="checkbox"
          className="h-[18px] w-[18px]"
          checked={how.back_white}
          onChange={(e) => set({ back_white: e.target.checked })}
        />{" "}
        Back it with white
      </label>
    </div>
  );
}

const clampPct = (v: number, most: number): number => Math.max(0, Math.min(most, v));

function TraceFields({ how, set }: FieldsProps) {
  return (
    <div>
      <Choice
        label="Trace to outlines"
        value={how.trace ?? "none"}
        options={[
          { value: "none", label: "no, keep the picture" },
          { value: "threshold", label: "ink and ground" },
          { value: "colours", label: "colours" },
        ]}
        onSet={(next) => set({ trace: next === "none" ? null : next })}
      />
      {how.trace && (
        <div className="mt-1 grid grid-cols-2 gap-x-4">
          {how.trace === "threshold" ? (
            <NumberField
              label="Ink is darker than"
              unit="%"
              step={2}
              decimals={0}
              value={(how.threshold ?? 0.5) * 100}
              onDrag={(v) => set({ threshold: clampPct(v, 100) / 100 })}
              onSet={(v) => set({ threshold: clampPct(v, 100) / 100 })}
            />
          ) : (
            <NumberField
              label="Colours"
              unit=""
              step={1}
              decimals={0}
              value={how.colours ?? 4}
              standard={4}
              onDrag={(v) => set({ colours: Math.max(2, Math.min(16, Math.round(v))) })}
              onSet={(v) => set({ colours: Math.max(2, Math.min(16, Math.round(v))) })}
            />
          )}
          <NumberField
            label="Least speck"
            unit="px²"
            step={4}
            decimals={0}
            value={how.least_speck_px ?? 24}
            standard={24}
            onDrag={(v) => set({ least_speck_px: Math.max(0, v) })}
            onSet={(v) => set({ least_speck_px: Math.max(0, v) })}
          />
          <NumberField
            label="Corners kept"
            unit="%"
            step={5}
            decimals={0}
            value={(how.sharpness ?? 0.5) * 100}
            standard={50}
            onDrag={(v) => set({ sharpness: clampPct(v, 100) / 100 })}
            onSet={(v) => set({ sharpness: clampPct(v, 100) / 100 })}
          />
          {how.trace === "threshold" && how.threshold !== null && (
            <button className="plain-button self-end px-2 py-0.5" onClick={() => set({ threshold: null })}>
              Find the threshold
            </button>
          )}
        </div>
      )}
      {how.trace === "threshold" && how.threshold === null && (
        <p className="text-[11.5px] text-moss">Ink and ground are told apart on their own; drag the figure to set it by hand.</p>
      )}
    </div>
  );
}
