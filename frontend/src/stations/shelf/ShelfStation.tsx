import { useState } from "react";
import { api, kept, type Brush, type Schemas, type Workshop } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import type { Scene } from "../../shared/api/scenes";
import { Picker } from "../../shared/ui/Picker";
import { go } from "../../shared/ui/place";
import { Swatch, useSwatches, type BrushSwatch } from "../../shared/view/Swatch";

export function ShelfStation({ workshop }: { workshop: Workshop }) {
  const [search, setSearch] = useState("");
  const swatches = useSwatches(workshop);
  const make = useChange((body: Schemas["NewBrush"]) => kept<Brush>(api.POST("/api/brushes", { body })));
  const shown = workshop.brushes.filter((b) => b.name.toLowerCase().includes(search.trim().toLowerCase()));
  return (
    <div className="h-full overflow-y-auto px-6 pt-4 pb-8">
      <header className="mb-4 flex items-baseline gap-5">
        <h2 className="text-[17px]">Brushes</h2>
        <input
          type="search"
          aria-label="Search by name"
          placeholder="Search by name"
          value={search}
          className="w-[210px] border-b-[1.5px] border-loden bg-transparent px-0.5"
          onChange={(e) => setSearch(e.target.value)}
        />
        <span className="text-moss">
          {search ? `${shown.length} of ${workshop.brushes.length}` : "Each is laid on the same curve and corner."}
        </span>
        <span className="ml-auto flex items-baseline gap-2">
          <span className="text-moss">New brush from</span>
          <Picker
            label="New brush from a motif"
            placeholder="a motif"
            options={workshop.motifs}
            value={null}
            onSet={(id) => {
              const motif = workshop.motifs.find((m) => m.id === id);
              if (motif) make.mutate({ name: motif.name, motif_id: id }, { onSuccess: (brush) => go("repeat", brush.id) });
            }}
          />
        </span>
      </header>
      {!workshop.brushes.length && (
        <p className="max-w-[56ch]">
          The shelf is empty.{" "}
          <button className="thread-word" onClick={() => go("motif")}>
            Bring in a motif
          </button>{" "}
          and make a brush of it; it will hang here with a swatch.
        </p>
      )}
      {workshop.brushes.length > 0 && !shown.length && <p className="text-moss">No brush is named like “{search}”.</p>}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(280px,1fr))] gap-5">
        {shown.map((brush) => (
          <Label
            key={brush.id}
            brush={brush}
            swatch={swatches(brush.id)}
            onCopy={() => make.mutate({ name: freeName(brush.name, workshop.brushes), copy_of: brush.id })}
          />
        ))}
      </ul>
    </div>
  );
}

function freeName(name: string, brushes: Brush[]): string {
  const stem = name.replace(/ \d+$/, "");
  let n = 2;
  while (brushes.some((b) => b.name === `${stem} ${n}`)) n++;
  return `${stem} ${n}`;
}

/** A brush as a woven label: its swatch, its name, what it can take. */
function Label({ brush, swatch, onCopy }: { brush: Brush; swatch: BrushSwatch | undefined; onCopy: () => void }) {
  const [name, setName] = useState<string | null>(null);
  const rename = useChange((next: string) =>
    kept(
      api.PATCH("/api/brushes/{id}", {
        params: { path: { id: brush.id } },
        body: { version: brush.version, name: next, merge_key: "" },
      }),
    ),
  );
  const remove = useChange(() =>
    kept(api.DELETE("/api/brushes/{id}", { params: { path: { id: brush.id }, query: { version: brush.version } } })),
  );
  const keep = (): void => {
    const next = name?.trim();
    if (next && next !== brush.name) rename.mutate(next);
    setName(null);
  };
  return (
    <li className="relative border border-rule bg-work" data-testid={`label-${brush.id}`}>
      <span aria-hidden className="absolute inset-y-0 left-0 w-[7px] border-r border-dashed border-madder bg-madder-wash" />
      <span aria-hidden className="absolute inset-y-0 right-0 w-[7px] border-l border-dashed border-madder bg-madder-wash" />
      <button
        className="block h-[150px] w-full px-4 pt-2"
        aria-label={`Open ${brush.name}`}
        onClick={() => go("repeat", brush.id)}
      >
        <Swatch of={swatch} label={`${brush.name} on the swatch`} />
      </button>
      <div className="px-4 pb-2.5">
        {name === null ? (
          <h3 className="truncate text-[15px]">{brush.name}</h3>
        ) : (
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
              if (e.key === "Escape") setName(null);
            }}
          />
        )}
        <p className="text-[12.5px] text-moss">{traits(swatch?.scene)}</p>
        <div className="mt-1 flex gap-3.5 text-[12.5px]">
          <button className="text-indigo underline decoration-dotted" aria-label={`Duplicate ${brush.name}`} onClick={onCopy}>
            Duplicate
          </button>
          <button
            className="text-indigo underline decoration-dotted"
            aria-label={`Rename ${brush.name}`}
            onClick={() => setName(brush.name)}
          >
            Rename
          </button>
          <button
            className="text-indigo underline decoration-dotted"
            aria-label={`Motif of ${brush.name}`}
            onClick={() => go("motif", brush.motif_id)}
          >
            Its motif
          </button>
          <button
            className="ml-auto text-madder underline decoration-dotted"
            aria-label={`Delete ${brush.name}`}
            onClick={() => remove.mutate(undefined)}
          >
            Delete
          </button>
        </div>
      </div>
    </li>
  );
}

function traits(scene: Scene | undefined): string {
  if (!scene) return " ";
  if (scene.refused) return scene.refused;
  const pitch = `every ${(scene.wished_pitch_mm ?? 0).toFixed(2)} mm`;
  return scene.safe_mm == null ? `${pitch}, takes any bend` : `${pitch}, needs radius ≥ ${scene.safe_mm.toFixed(0)} mm`;
}
