import { useState } from "react";
import { api, kept, type Brush } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import { Picker } from "../../shared/ui/Picker";
import { go } from "../../shared/ui/place";
import { useOpenMotif } from "./openMotif";
import { ROLES } from "./roles";

/** Make the motif a piece of a brush that is there. */
export function JoinBrush() {
  const { motif, workshop } = useOpenMotif();
  const [role, setRole] = useState(0);
  const join = useChange((brush: Brush) => {
    const own = ROLES[role].role;
    const motif_ids = own === "repeat" ? [...brush.pieces.repeat, motif.id] : [motif.id];
    return kept<Brush>(
      api.POST("/api/brushes/{id}/pieces", {
        params: { path: { id: brush.id } },
        body: { version: brush.version, role: own, motif_ids },
      }),
    );
  });
  return (
    <span className="flex items-baseline gap-1.5 text-[12.5px]">
      or the
      <Picker label="Role" options={ROLES.map((r, id) => ({ id, name: r.name }))} value={role} onSet={setRole} />
      of
      <Picker
        label="Brush to join"
        placeholder="a brush"
        options={workshop.brushes.filter((b) => !b.pieces.repeat.includes(motif.id))}
        value={null}
        onSet={(id) => {
          const brush = workshop.brushes.find((b) => b.id === id);
          if (brush) join.mutate(brush, { onSuccess: () => ROLES[role].role === "repeat" && go("repeat", id) });
        }}
      />
    </span>
  );
}
