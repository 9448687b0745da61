import { useState } from "react";
import { type Original, type Preparation } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { Repeating } from "./Starters";
import { type Preview, usePreview, useMaking } from "./usePicture";
import { type Hand, Source } from "./PictureSource";
import { ClearFields, KeepFields, TraceFields } from "./PictureFields";

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
