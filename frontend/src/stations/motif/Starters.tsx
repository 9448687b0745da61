import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, kept, type Motif, type Starter } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import { stepThrough, takeFocus, useEscape } from "../../shared/ui/keys";
import { go } from "../../shared/ui/place";
import { useBeginning } from "./beginning";
import type { OpenMotif } from "./openMotif";
import { Repeating } from "./Repeating";
import { STARTERS } from "./startersQuery";

/** The starters, each drawn repeating; pressed it becomes a new motif, or a part of the open one. */
export function Starters({ open }: { open: OpenMotif | null }) {
  const onDone = useBeginning((now) => now.done);
  useEscape(onDone);
  const { data } = useQuery(STARTERS);
  const [onto, setOnto] = useState(false);
  const begin = useChange((starter: string) => kept<Motif>(api.POST("/api/motifs/starter", { body: { starter } })));
  const take = (starter: Starter): void => {
    if (onto && open) {
      open.edit.keep(
        {
          op: "starter",
          starter: starter.key,
          figures: {},
          x_mm: open.motif.width_mm / 2,
          y_mm: open.motif.height_mm / 2,
          colour: null,
        },
        { label: `${starter.name.toLowerCase()} laid on` },
      );
      onDone();
    } else begin.mutate(starter.key, { onSuccess: (made) => (go("motif", made.id), onDone()) });
  };
  return (
    <div
      className="absolute inset-x-0 top-0 z-20 border-b border-loden bg-work px-5 pt-3 pb-4 shadow-md"
      role="dialog"
      aria-label="Starters"
    >
      <div className="mb-2 flex items-baseline gap-4">
        <h2 className="text-[15px]">Starters</h2>
        <span className="text-[12.5px] text-moss">
          Each is drawn repeating; its figures stay live until its shape is changed by hand.
        </span>
        {open && (
          <label className="ml-auto flex items-center gap-1.5 text-[12.5px]">
            <input type="checkbox" checked={onto} onChange={(e) => setOnto(e.target.checked)} /> lay it onto {open.motif.name}
          </label>
        )}
        <button className={`plain-button ${open ? "" : "ml-auto"}`} onClick={onDone}>
          Close
        </button>
      </div>
      <ul className="grid grid-cols-6 gap-2" onKeyDown={(e) => stepThrough(e, COLUMNS)}>
        {data?.starters.map((starter, i) => (
          <li key={starter.key}>
            <button
              ref={i === 0 ? takeFocus : undefined}
              aria-label={starter.name}
              className="block w-full border border-rule bg-work px-1 pt-1 pb-0.5 hover:border-loden"
              onClick={() => take(starter)}
            >
              <span className="block h-[62px]">
                <Repeating motif={starter.motif} />
              </span>
              {starter.name}
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

const COLUMNS = 6; // as the grid has
