import { useState } from "react";
import { NumberField } from "../../shared/ui/NumberField";
import { useBeginning } from "./beginning";
import { useOpenPicture } from "./openPicture";
import { useMaking } from "./usePicture";

/** Size, name, and the making itself, with its progress. */
export function MakeMotif() {
  const { original, how, set, preview, refusal, busy, again } = useOpenPicture();
  const onDone = useBeginning((now) => now.done);
  const [name, setName] = useState(original.name);
  const { job, start, stop } = useMaking(original.sha, onDone, () => busy && again());
  return (
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
  );
}
