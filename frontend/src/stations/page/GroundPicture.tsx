import { useRef } from "react";
import type { Original, Page, Schemas } from "../../shared/api/client";
import { bringInPicture, MOST_PICTURE, nameOf, tooLarge } from "../../shared/api/originals";
import { useTrouble } from "../../shared/api/queries";
import { useScans, useTakeScan } from "../../shared/api/scans";
import { Choice } from "../../shared/ui/Choice";
import { FileInput } from "../../shared/ui/FileInput";

type Wanted = Schemas["PageChange"]["ground_picture"];

/** A picture under the lines: out of a file or the scan tray, over the whole page or as large as it is. */
export function GroundPicture({ page, onSet }: { page: Page; onSet: (picture: Wanted) => void }) {
  const file = useRef<HTMLInputElement>(null);
  const say = useTrouble((trouble) => trouble.say);
  const picture = page.ground_picture;
  const lay = ({ sha }: Original): void => onSet({ sha, laid: picture?.laid ?? "fitted" });
  const take = (chosen: File): void => {
    if (chosen.size > MOST_PICTURE) say(tooLarge(chosen, MOST_PICTURE, "a picture"));
    else bringInPicture(nameOf(chosen, "Ground"), chosen).then(lay, (why: Error) => say(why.message));
  };
  return (
    <section aria-label="Picture on the ground" className="mb-2 text-[12.5px]">
      {picture && (
        <div className="mb-1">
          <p className="truncate" title={picture.name}>
            <b>{picture.name}</b>, {picture.size_mm.map((mm) => mm.toFixed(0)).join(" × ")} mm
          </p>
          <Choice
            label="How the picture lies"
            hidden
            small
            value={picture.laid ?? "fitted"}
            options={[
              { value: "fitted", label: "over the page" },
              { value: "true_size", label: "true size" },
            ]}
            onSet={(laid) => onSet({ sha: picture.sha, laid })}
          />
        </div>
      )}
      <p className="flex flex-wrap gap-x-3">
        <span className="text-moss">{picture ? "Another picture:" : "A picture on it:"}</span>
        <button className="thread-word" onClick={() => file.current?.click()}>
          from a file
        </button>
        <Scans onTake={lay} />
        {picture && (
          <button className="thread-word" onClick={() => onSet("none")}>
            none
          </button>
        )}
      </p>
      <FileInput ref={file} accept=".png,.jpg,.jpeg,.webp,.tif,.tiff" testId="ground-file" onFile={take} />
    </section>
  );
}

/** The scans that could lie under the lines, each by its name. */
function Scans({ onTake }: { onTake: (picture: Original) => void }) {
  const { data } = useScans();
  const take = useTakeScan();
  return (data?.scans ?? []).map(({ name }) => (
    <button
      key={name}
      className="thread-word"
      disabled={take.isPending}
      onClick={() => take.mutateAsync(name).then(onTake, () => undefined)}
    >
      {name.replace(/\.\w+$/, "").replace(/[-_]+/g, " ")}
    </button>
  ));
}
