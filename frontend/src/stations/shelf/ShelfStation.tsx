import { useState } from "react";
import { api, kept, type Brush, type Schemas, type Workshop } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import { goesTo, presses, useLetters } from "../../shared/ui/keys";
import { Picker } from "../../shared/ui/Picker";
import { go } from "../../shared/ui/place";
import { useSwatches } from "../../shared/view/Swatch";
import { BrushLabel } from "./BrushLabel";

export function ShelfStation({ workshop }: { workshop: Workshop }) {
  const [search, setSearch] = useState("");
  const swatches = useSwatches(workshop);
  const make = useChange((body: Schemas["NewBrush"]) => kept<Brush>(api.POST("/api/brushes", { body })));
  useLetters([goesTo("s", "search by name", "Search by name"), presses("n", "new brush from a motif", "New brush from a motif")]);
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
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(max(280px,19vw),1fr))] gap-5">
        {shown.map((brush) => (
          <BrushLabel
            key={brush.id}
            brush={brush}
            swatch={swatches(brush.id)}
            onCopy={() => make.mutate({ copy_of: brush.id })}
          />
        ))}
      </ul>
    </div>
  );
}
