import { api, kept, type Schemas } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import { go } from "../../shared/ui/place";
import { useOpenMotif } from "./openMotif";

/** Cut in three, keep what repeats, or take the cuts away. */
export function Cutting() {
  const { bench, edit } = useOpenMotif();
  const { motif } = bench;
  const divide = useChange(() =>
    kept<Schemas["BrushMessage"]>(
      api.POST("/api/motifs/{id}/divide", {
        params: { path: { id: motif.id } },
        body: { version: motif.version, name: motif.name },
      }),
    ),
  );
  return (
    <div className="mt-1.5 flex flex-wrap items-center gap-1.5">
      <button
        className="plain-button px-1.5 py-0"
        disabled={!motif.cuts_mm}
        onClick={() => divide.mutate(undefined, { onSuccess: (brush) => go("repeat", brush.id) })}
      >
        Cut in three pieces
      </button>
      <button className="plain-button px-1.5 py-0" disabled={!motif.cuts_mm} onClick={() => edit.keep({ op: "keep_between" })}>
        Keep only what repeats
      </button>
      <button
        className="plain-button px-1.5 py-0"
        disabled={!motif.cuts_mm}
        onClick={() => edit.keep({ op: "cuts", cuts_mm: null }, { label: "no cuts" })}
      >
        No cuts
      </button>
    </div>
  );
}
