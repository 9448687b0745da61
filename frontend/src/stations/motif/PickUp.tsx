import { useState } from "react";
import { api, kept, type Motif } from "../../shared/api/client";
import { useChange, useOpenWorkshop } from "../../shared/api/queries";
import { NumberField } from "../../shared/ui/NumberField";
import { Picker } from "../../shared/ui/Picker";
import { go } from "../../shared/ui/place";
import { useSize } from "../../shared/view/WorkCanvas";
import { PageRegion, type Region } from "./PageRegion";
import { useBeginning } from "./beginning";
import { NewName } from "./NewName";

/** Pick up a region of a page, its brushes laid, as a new motif. */
export function PickUp() {
  const workshop = useOpenWorkshop();
  const onDone = useBeginning((now) => now.done);
  const [pageId, setPageId] = useState(workshop.pages[0]?.id ?? 0);
  const page = workshop.pages.find((p) => p.id === pageId);
  const [region, setRegion] = useState<Region | null>(null);
  const [name, setName] = useState("Picked up");
  const [box, size] = useSize<HTMLDivElement>();
  const pick = useChange((own: Region) =>
    kept<Motif>(
      api.POST("/api/pages/{id}/pick-up", {
        params: { path: { id: pageId } },
        body: { name: name.trim() || "Picked up", left_mm: own[0], top_mm: own[1], right_mm: own[2], bottom_mm: own[3] },
      }),
    ),
  );
  const set = (i: number, mm: number): void =>
    setRegion((now) => (now ?? [0, 0, 20, 20]).map((v, k) => (k === i ? mm : v)) as Region);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex items-end gap-6 border-b border-rule bg-work px-5 py-2">
        <h2 className="text-[15px]">Pick up from a page</h2>
        <Picker label="Page" options={workshop.pages} value={pageId} onSet={setPageId} />
        <span className="text-[12.5px] text-moss">Pull over what is to become the motif.</span>
        {(["Left", "Top", "Right", "Foot"] as const).map((label, i) => (
          <NumberField key={label} label={label} unit="mm" step={1} value={region?.[i] ?? 0} onSet={(v) => set(i, v)} />
        ))}
      </div>
      <div ref={box} className="weave relative min-h-0 flex-1">
        {page && size.width > 0 && <PageRegion page={page} room={size} region={region} onPull={setRegion} />}
        {!page && <p className="p-8 text-moss">There is no page yet. Draw a line at the Page station first.</p>}
      </div>
      <div className="flex items-center gap-3 border-t border-rule bg-work px-5 py-2.5">
        <NewName className="w-[210px]" value={name} onChange={setName} />
        <button
          className="firm-button disabled:opacity-50"
          disabled={!region || pick.isPending}
          onClick={() => region && pick.mutate(region, { onSuccess: (made) => (go("motif", made.id), onDone()) })}
        >
          {pick.isPending ? "Picking up…" : "Pick up as a motif"}
        </button>
        <button className="plain-button" onClick={onDone}>
          Leave
        </button>
      </div>
    </div>
  );
}
