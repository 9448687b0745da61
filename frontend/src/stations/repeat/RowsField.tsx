import { useState } from "react";

/** Distances of further rows in mm, typed with blanks between; positive ones lie to the right of travel. */
export function RowsField({ beside, onSet }: { beside: number[]; onSet: (beside: number[]) => void }) {
  const shown = beside.join("  ");
  const [text, setText] = useState<string | null>(null);
  const read = (written: string): number[] | null => {
    const found = written
      .trim()
      .split(/[\s;]+/)
      .filter(Boolean)
      .map((part) => Number(part.replace(",", ".").replace("−", "-")));
    return found.length <= 50 && found.every((v) => Number.isFinite(v) && Math.abs(v) <= 1000) ? found : null;
  };
  const wrong = text !== null && read(text) === null;
  const take = (): void => {
    const next = text === null ? null : read(text);
    if (next === null) return;
    setText(null);
    if (next.join() !== beside.join()) onSet(next);
  };
  return (
    <label className="block">
      <span className="block text-[12.5px] text-moss">Rows beside the line, mm (to the left −)</span>
      <input
        className="w-full border-b-[1.5px] border-loden bg-transparent font-semibold aria-invalid:border-madder"
        aria-label="Rows beside the line"
        aria-invalid={wrong}
        placeholder="none; try 4 or -3 3"
        value={text ?? shown}
        onChange={(event) => setText(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => (event.key === "Enter" ? take() : event.key === "Escape" && setText(null))}
      />
      {wrong && <span className="text-[12px] text-madder">up to 50 numbers from −1000 to 1000, with blanks between</span>}
    </label>
  );
}
