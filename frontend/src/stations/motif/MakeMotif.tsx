import { useState } from "react";
import { NumberField } from "../../shared/ui/NumberField";
import { useBeginning } from "./beginning";
import { useOpenPicture } from "./openPicture";
import { useMaking } from "./usePicture";
import { NewName } from "./NewName";

/** Size, name, and the making itself, with its progress. */
export function MakeMotif() {
  const { original, how, set, preview, refusal, busy, again } = useOpenPicture();
  const onDone = useBeginning((now) => now.done);
  const before = useBeginning((now) => now.kept?.motif);
  const [name, setName] = useState(before?.name ?? original.name);
  const { job, start, stop } = useMaking(original.sha, onDone, () => busy && again());
  const named = name.trim() || original.name;
  return (
    <div className="flex flex-col gap-2">
      <NumberField
        label="Length of the motif"
        unit="mm"
        step={1}
        value={how.width_mm ?? preview?.motif.width_mm ?? 0}
        onSet={(width_mm) => set({ width_mm })}
      />
      <NewName value={name} onChange={setName} />
      {job ? (
        <div role="status" className="text-[12.5px]">
          <progress className="w-full" max={1} value={job.share} aria-label="Progress" />
          {Math.round(job.share * 100)} %
          <button className="plain-button ml-2" onClick={stop}>
            Stop
          </button>
        </div>
      ) : (
        <>
          {before && (
            <button className="firm-button" disabled={!preview || refusal !== null} onClick={() => start(named, how, before)}>
              Make {before.name} anew
            </button>
          )}
          <button
            className={before ? "plain-button" : "firm-button"}
            disabled={!preview || refusal !== null}
            onClick={() => start(named, how)}
          >
            Make {before ? "another" : "the"} motif
          </button>
        </>
      )}
      <button className="plain-button" onClick={onDone}>
        Leave the picture
      </button>
      <p className="text-[11.5px] text-moss">
        {original.width_px} × {original.height_px} pixels
        {original.dpi ? `, ${original.dpi} dpi` : ", no size of its own: 96 to the inch"}. {original.told.join(" ")}
      </p>
    </div>
  );
}
