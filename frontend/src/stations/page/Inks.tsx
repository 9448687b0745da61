import { useState } from "react";
import type { Line } from "../../shared/api/client";
import { runOf } from "../../shared/api/runs";
import { useLaidPage } from "./laidPage";
import { Palette } from "./Palette";

const FOCUSED = "focus-visible:outline-[3px] focus-visible:outline-offset-2 focus-visible:outline-indigo";
const PRESSED = `aria-pressed:outline-2 aria-pressed:outline-loden ${FOCUSED}`;

/** The inks of a line: its brush's own, one of the page's palette, or another; and the second ink where its brush mixes two. */
export function Inks({ line }: { line: Line }) {
  const { changes, workshop } = useLaidPage();
  const [open, setOpen] = useState(false);
  const brush = workshop.brushes.find(({ id }) => id === line.brush_id);
  const mixes = brush?.settings.variations?.some(({ of }) => of === "mix") ?? false;
  const dye = (key: "ink" | "second_ink") => (value: string, label: string, merge_key?: string) =>
    changes.change.mutate({ line, [key]: value, label, merge_key });
  return (
    <>
      <InkRow word="Ink" own="own colours" line={line} value={line.ink} onSet={dye("ink")}>
        <button className="thread-word ml-1 text-[12px]" aria-expanded={open} onClick={() => setOpen(!open)}>
          palette
        </button>
      </InkRow>
      {(mixes || line.second_ink) && (
        <InkRow word="Second" own="as its brush" line={line} value={line.second_ink} onSet={dye("second_ink")} />
      )}
      {open && <Palette line={line} />}
    </>
  );
}

interface RowProps {
  word: string;
  own: string;
  line: Line;
  value: string | null;
  onSet: (value: string, label: string, merge_key?: string) => void;
  children?: React.ReactNode;
}

function InkRow({ word, own, line, value, onSet, children }: RowProps) {
  const { page } = useLaidPage();
  return (
    <div role="group" aria-label={word} className="mt-1.5 flex flex-wrap items-center gap-1.5">
      <span className="text-[12.5px] text-moss">{word}</span>
      <button
        aria-label={`${word}: ${own}`}
        aria-pressed={value === null}
        className="min-h-6 border-b-2 border-transparent px-0.5 text-[12.5px] aria-pressed:border-madder aria-pressed:font-semibold"
        onClick={() => onSet("own", `${own} for ${line.name}`)}
      >
        {own}
      </button>
      {page.palette.map(({ name, colour }, i) => (
        <button
          key={`${colour} ${i}`}
          title={name}
          aria-label={`${word} ${name}`}
          aria-pressed={value === colour}
          className={`h-[18px] w-[18px] rounded-full border border-work outline-1 outline-rule ${PRESSED}`}
          ref={(element) => element?.style.setProperty("background", colour)}
          onClick={() => onSet(colour, `${name} for ${line.name}`)}
        />
      ))}
      <input
        type="color"
        aria-label={word === "Ink" ? "Another ink" : "Another second ink"}
        value={value ?? "#20352c"}
        className="h-[20px] w-[26px]"
        onChange={(e) => onSet(e.target.value, `ink of ${line.name}`, runOf(`${word} ${line.id}`))}
      />
      {children}
    </div>
  );
}
