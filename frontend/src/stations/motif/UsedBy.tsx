import { api, kept, type Brush } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import { go } from "../../shared/ui/place";
import { useOpenMotif } from "./openMotif";
import { ROLES } from "./roles";

/** The brushes that the motif is a piece of. */
export function UsedBy({ users }: { users: Brush[] }) {
  const { motif } = useOpenMotif();
  const leave = useChange((brush: Brush) => {
    const own = ROLES.find((r) =>
      r.role === "repeat" ? brush.pieces.repeat.includes(motif.id) : brush.pieces[r.role] === motif.id,
    )!.role;
    const motif_ids = own === "repeat" ? brush.pieces.repeat.filter((id) => id !== motif.id) : [];
    return kept<Brush>(
      api.POST("/api/brushes/{id}/pieces", {
        params: { path: { id: brush.id } },
        body: { version: brush.version, role: own, motif_ids },
      }),
    );
  });
  return (
    <p className="mb-2 text-[12.5px] text-moss">
      Used by{" "}
      {users.map((b, i) => (
        <span key={b.id}>
          {i > 0 && ", "}
          <button className="text-indigo underline decoration-dotted" onClick={() => go("repeat", b.id)}>
            {b.name}
          </button>
          {(b.pieces.repeat.length > 1 || !b.pieces.repeat.includes(motif.id)) && (
            <button
              className="ml-1 text-madder underline decoration-dotted"
              aria-label={`Take it out of ${b.name}`}
              onClick={() => leave.mutate(b)}
            >
              take it out
            </button>
          )}
        </span>
      ))}
    </p>
  );
}
