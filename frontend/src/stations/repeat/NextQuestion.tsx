import { useState } from "react";
import { type Brush } from "../../shared/api/client";
import { Choice } from "../../shared/ui/Choice";
import { go } from "../../shared/ui/place";
import { NumberField } from "../../shared/ui/NumberField";
import { ORDER_PICTURES } from "./pictures";
import { bound } from "./bound";
import type { QuestionProps } from "./OftenQuestion";
import { Borders } from "./Borders";

/** Which variant comes next, and the rows beside the line. */
export function NextQuestion({ edit, settings, pieces }: QuestionProps & { pieces: Brush["pieces"] }) {
  const { variants, rows } = settings;
  const several = pieces.repeat.length > 1;
  const beside = rows?.beside_mm ?? [];
  return (
    <div className="flex flex-col gap-1.5">
      {several ? (
        <Choice
          small
          label={`Variants, ${pieces.repeat.length} of them`}
          value={variants.order ?? "in_turn"}
          options={[
            { value: "in_turn", label: "in turn", picture: ORDER_PICTURES.in_turn },
            { value: "shuffled", label: "shuffled", picture: ORDER_PICTURES.shuffled },
            { value: "chance", label: "by chance", picture: ORDER_PICTURES.chance },
            { value: "no_twin", label: "never a twin", picture: ORDER_PICTURES.no_twin },
          ]}
          onSet={(order) => edit.set({ variants: { order } }, `variants ${order.replace("_", " ")}`)}
        />
      ) : (
        <p className="text-[12.5px] text-moss">
          One motif, so there is nothing to choose from.{" "}
          <button className="thread-word" onClick={() => go("motif", pieces.repeat[0])}>
            Give it a variant at Motif
          </button>
          .
        </p>
      )}
      {several && variants.order !== "in_turn" && (
        <NumberField
          compact
          label="Arrangement"
          step={1}
          decimals={0}
          standard={1}
          {...bound(edit, settings, "variants", "arrangement", "arrangement", "")}
        />
      )}
      <Borders edit={edit} />
      <RowsField
        beside={beside}
        onSet={(beside_mm) => edit.set({ rows: { beside_mm } }, beside_mm.length ? `${beside_mm.length + 1} rows` : "one row")}
      />
      {beside.length > 0 && (
        <div className="flex items-end gap-4">
          {settings.travel.round_bends === "jointed" ? (
            <p className="text-[12.5px] text-moss">Links are hung anew in each row.</p>
          ) : (
            <Choice
              small
              label="Rows are eased"
              value={rows?.ease ?? "own"}
              options={[
                { value: "own", label: "each on its own" },
                { value: "in_step", label: "in step with the first" },
              ]}
              onSet={(ease) => edit.set({ rows: { ease } }, ease === "own" ? "rows eased on their own" : "rows in step")}
            />
          )}
          <button
            className="plain-button px-1.5 py-0"
            aria-pressed={!!rows?.brick}
            onClick={() => edit.set({ rows: { brick: !rows?.brick } }, rows?.brick ? "rows side by side" : "rows in brick")}
          >
            {rows?.brick ? "in brick" : "side by side"}
          </button>
        </div>
      )}
    </div>
  );
}

/** Distances of further rows in mm, typed with blanks between; positive ones lie to the right of travel. */
function RowsField({ beside, onSet }: { beside: number[]; onSet: (beside: number[]) => void }) {
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
