import { useState } from "react";
import { api, kept, type Brush } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";

/** A brush's name in the making: Enter keeps it, Escape leaves it. */
export function Renaming({ brush, onDone }: { brush: Brush; onDone: () => void }) {
  const [name, setName] = useState(brush.name);
  const rename = useChange((next: string) =>
    kept(
      api.PATCH("/api/brushes/{id}", {
        params: { path: { id: brush.id } },
        body: { version: brush.version, name: next, merge_key: "" },
      }),
    ),
  );
  const keep = (): void => {
    const next = name.trim();
    if (next && next !== brush.name) rename.mutate(next);
    onDone();
  };
  return (
    <input
      autoFocus
      aria-label="Name of the brush"
      value={name}
      className="w-full border-b border-loden font-display text-[15px] font-semibold"
      onFocus={(e) => e.target.select()}
      onChange={(e) => setName(e.target.value)}
      onBlur={keep}
      onKeyDown={(e) => {
        if (e.key === "Enter") keep();
        if (e.key === "Escape") onDone();
      }}
    />
  );
}
