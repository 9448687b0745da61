import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, kept, type Schemas } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { FoundRepeat } from "./FoundRepeat";
import { useOpenMotif } from "./openMotif";

/** Find the best cut or the repeat, or darn the seam. */
export function Mending() {
  const { bench, edit } = useOpenMotif();
  const { motif } = bench;
  const [darn, setDarn] = useState(2);
  const find = useMutation({
    mutationFn: () =>
      kept<Schemas["FoundRepeatMessage"]>(api.GET("/api/motifs/{id}/repeat", { params: { path: { id: motif.id } } })),
  });
  const picture = motif.shapes.length === 1 && motif.shapes[0].picture !== null;
  return (
    <>
      <div className="flex flex-wrap items-center gap-1.5">
        <button className="firm-button px-2.5 py-1" disabled={edit.busy} onClick={() => edit.keep({ op: "best_cut" })}>
          Find the best cut
        </button>
        <button className="plain-button px-1.5 py-0" disabled={find.isPending} onClick={() => find.mutate()}>
          {find.isPending ? "Looking…" : "Find the repeat"}
        </button>
        <button
          className="plain-button px-1.5 py-0"
          disabled={edit.busy}
          onClick={() => edit.keep({ op: "darn", width_mm: darn })}
        >
          Darn the seam
        </button>
        {picture && <NumberField compact label="over" unit="mm" step={0.5} value={darn} standard={2} onSet={setDarn} />}
      </div>
      {find.data && <FoundRepeat found={find.data} />}
      {find.error && <p className="mt-2 text-[12.5px] text-madder">{find.error.message}.</p>}
    </>
  );
}
