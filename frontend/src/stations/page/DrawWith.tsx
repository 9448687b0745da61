import { useRef } from "react";
import { useTrouble } from "../../shared/api/queries";
import { FileInput } from "../../shared/ui/FileInput";
import { Picker } from "../../shared/ui/Picker";
import { BrushPicture } from "./BrushPicture";
import { useDesk } from "./desk";
import { useLaidPage } from "./laidPage";
import { ReadyLines } from "./ReadyLines";
import { TypedPoints } from "./TypedPoints";
import type { Mode } from "./types";

/** Ways to bring a line onto the page, and the brush that it is drawn with. */
export function DrawWith() {
  const { workshop, lines, brushId, changes } = useLaidPage();
  const mode = useDesk((desk) => desk.mode);
  const setMode = useDesk((desk) => desk.setMode);
  const setBrush = useDesk((desk) => desk.setBrush);
  const chooseAll = useDesk((desk) => desk.chooseAll);
  const ready = useDesk((desk) => desk.ready);
  const showReady = useDesk((desk) => desk.showReady);
  const file = useRef<HTMLInputElement>(null);
  const say = useTrouble((s) => s.say);
  const bringIn = async (chosenFile: File): Promise<void> => {
    if (!brushId) return;
    if (chosenFile.size > 10 * 1024 * 1024)
      say(`${chosenFile.name} is more than the 10 MB a drawing may have; nothing was brought in`);
    else {
      const brought = await changes.bringIn.mutateAsync({ brush_id: brushId, svg: await chosenFile.text() });
      chooseAll(brought.lines.map(({ id }) => id).filter((id) => !lines.some((line) => line.id === id)));
      if (brought.left_out.length) say(brought.left_out.join(" "), "told");
    }
  };
  const ways: [Exclude<Mode, null>, string][] = [
    ["hand", "By hand"],
    ["points", "By points"],
  ];
  return (
    <div>
      <div role="group" aria-label="Draw a line" className="flex items-baseline gap-3 whitespace-nowrap">
        <span className="text-moss">Draw</span>
        {ways.map(([way, words]) => (
          <button
            key={way}
            aria-pressed={mode === way}
            disabled={!brushId}
            className="border-b-2 border-loden pb-px font-semibold aria-pressed:border-madder disabled:text-moss"
            onClick={() => setMode(mode === way ? null : way)}
          >
            {words}
          </button>
        ))}
        <button
          className="border-b-2 border-loden pb-px font-semibold disabled:text-moss"
          disabled={!brushId}
          onClick={() => file.current?.click()}
        >
          Bring in SVG
        </button>
        <ReadyLines open={ready} onOpen={showReady} />
        <FileInput
          ref={file}
          accept=".svg,image/svg+xml"
          testId="lines-file"
          onFile={(chosen) => void bringIn(chosen).catch(() => undefined)}
        />
      </div>
      {brushId && (
        <div className="mt-1.5 flex items-center gap-2">
          <span className="text-moss">with</span>
          <Picker
            label="Brush for the next line"
            options={workshop.brushes}
            value={brushId}
            onSet={setBrush}
            picture={(id) => <BrushPicture brushId={id} />}
          />
        </div>
      )}
      {mode === "points" && <TypedPoints />}
    </div>
  );
}
