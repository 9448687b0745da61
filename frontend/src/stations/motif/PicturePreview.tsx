import { useOpenPicture } from "./openPicture";
import { Repeating } from "./Repeating";
import type { Preview } from "./usePicture";

/** The motif that the picture would give, repeating. */
export function PicturePreview() {
  const { preview, refusal, busy } = useOpenPicture();
  return (
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
  );
}

function figures(preview: Preview): string {
  const { motif } = preview;
  const size = `${motif.width_mm.toFixed(1)} × ${motif.height_mm.toFixed(1)} mm`;
  return preview.deviation_mm === null
    ? `A picture of ${size}.`
    : `${preview.points} points, within ${preview.deviation_mm.toFixed(3)} mm of the picture; ${size}.`;
}
