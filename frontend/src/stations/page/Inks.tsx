import type { Line } from "../../shared/api/client";
import { useLaidPage } from "./laidPage";

const PRESSED = "aria-pressed:outline-2 aria-pressed:outline-loden";

const INKS: [string, string][] = [
  ["#a63a2f", "madder"],
  ["#2c4a84", "indigo"],
  ["#c9971c", "weld"],
  ["#3f7150", "woad green"],
  ["#5a4027", "walnut"],
  ["#20352c", "loden"],
];

/** The ink of a line: its brush's own colours, one of the dyes, or another. */
export function Inks({ line }: { line: Line }) {
  const { changes } = useLaidPage();
  const dye = (ink: string, label: string, merge_key?: string): void => changes.change.mutate({ line, ink, label, merge_key });
  return (
    <div className="mt-1.5 flex items-center gap-1.5">
      <span className="mr-1 text-[12.5px] text-moss">Ink</span>
      <button
        aria-pressed={line.ink === null}
        className="border-b-2 border-transparent px-0.5 text-[12.5px] aria-pressed:border-madder aria-pressed:font-semibold"
        onClick={() => dye("own", `own colours for ${line.name}`)}
      >
        own colours
      </button>
      {INKS.map(([ink, word]) => (
        <button
          key={ink}
          title={word}
          aria-label={`Ink ${word}`}
          aria-pressed={line.ink === ink}
          className={`h-[18px] w-[18px] rounded-full border border-work outline-1 outline-rule ${PRESSED}`}
          ref={(element) => element?.style.setProperty("background", ink)}
          onClick={() => dye(ink, `${word} for ${line.name}`)}
        />
      ))}
      <input
        type="color"
        aria-label="Another ink"
        value={line.ink ?? "#20352c"}
        className="ml-auto h-[20px] w-[26px]"
        onChange={(e) => dye(e.target.value, `ink of ${line.name}`, `ink ${line.id}`)}
      />
    </div>
  );
}
