import { useRef, useState } from "react";
import { api, kept, type Brush, type Motif, type Schemas, type Workshop } from "../../shared/api/client";
import { useChange, useTrouble, withVersion } from "../../shared/api/queries";
import { useLetters } from "../../shared/ui/keys";
import { NumberField } from "../../shared/ui/NumberField";
import { go } from "../../shared/ui/place";
import { MotifBench } from "./MotifBench";
import { MotifList } from "./MotifList";

const MOST_BYTES = 10 * 1024 * 1024;

export function MotifStation({ workshop, id }: { workshop: Workshop; id: number | null }) {
  const motif = workshop.motifs.find((m) => m.id === id) ?? workshop.motifs[0];
  const file = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const say = useTrouble((s) => s.say);
  const bringIn = useChange((body: Schemas["NewMotif"]) => kept<Motif>(api.POST("/api/motifs", { body })));

  const take = async (chosen: File | undefined): Promise<void> => {
    if (!chosen) return;
    if (chosen.size > MOST_BYTES) {
      say(`${chosen.name} is ${(chosen.size / 1048576).toFixed(1)} MB, more than the 10 MB a drawing may have; nothing was brought in`);
      return;
    }
    const name = chosen.name.replace(/\.svg$/i, "").replace(/[-_]+/g, " ").trim() || "Motif";
    bringIn.mutate({ name: name.slice(0, 200), svg: await chosen.text(), trim: true }, { onSuccess: (m) => go("motif", m.id) });
  };
  useLetters([{ letter: "b", words: "bring in an SVG", act: () => file.current?.click() }]);

  return (
    <div
      className="flex h-full"
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        void take(event.dataTransfer.files[0]);
      }}
    >
      <div className="flex min-w-0 flex-1 flex-col">
        <header className="flex h-[46px] shrink-0 items-center gap-5 border-b border-rule px-5">
          <span className="text-moss">Begin with</span>
          <button className="font-semibold hover:text-madder" onClick={() => file.current?.click()}>
            Bring in SVG
          </button>
          <span className="text-[12.5px] text-moss">or drop a file here. It is cleaned and its empty margin cut away.</span>
          <input
            ref={file}
            type="file"
            accept=".svg,image/svg+xml"
            className="hidden"
            data-testid="motif-file"
            onChange={(event) => {
              void take(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
          {motif && <span className="ml-auto text-moss">{weight(motif)}</span>}
        </header>
        {motif ? <MotifBench key={motif.id} motif={motif} /> : <NoMotif onSample={(svg) => bringIn.mutate({ name: "Pill stitch", svg, trim: true })} />}
        {over && <p className="pointer-events-none absolute inset-6 flex items-center justify-center border-2 border-dashed border-madder bg-madder-wash/80 text-lg">Let go to bring it in</p>}
      </div>
      <aside aria-label="Motifs" className="flex w-[330px] shrink-0 flex-col border-l border-rule px-4 py-3">
        {motif && <MotifFacts key={motif.id} motif={motif} workshop={workshop} />}
        <MotifList workshop={workshop} open={motif} />
      </aside>
    </div>
  );
}

function weight(motif: Motif): string {
  const word = motif.points < 400 ? "light" : motif.points < 2000 ? "fair" : "heavy: thin it before laying hundreds";
  return `${motif.points} points, ${word}`;
}

const SAMPLE = `<svg xmlns="http://www.w3.org/2000/svg" width="8mm" height="2.4mm" viewBox="0 0 8 2.4"><rect width="8" height="2.4" rx="1.2" fill="#a63a2f"/><rect x=".9" y=".5" width="6.2" height=".7" rx=".35" fill="#d0776a"/></svg>`;

function NoMotif({ onSample }: { onSample: (svg: string) => void }) {
  return (
    <div className="mx-auto mt-20 max-w-[52ch]">
      <h2 className="text-xl">No motif yet</h2>
      <p className="my-3">A motif is the piece that repeats. Bring in an SVG of one link, leaf or stitch, or begin with a sample.</p>
      <button className="firm-button" onClick={() => onSample(SAMPLE)}>
        Begin with a pill stitch
      </button>
    </div>
  );
}

function MotifFacts({ motif, workshop }: { motif: Motif; workshop: Workshop }) {
  const [name, setName] = useState(motif.name);
  const change = useChange((patch: Omit<Schemas["MotifChange"], "version" | "trim"> & { trim?: boolean }) =>
    withVersion("motif", motif, (version) => kept(api.PATCH("/api/motifs/{id}", { params: { path: { id: motif.id } }, body: { ...patch, version, trim: patch.trim ?? false } }))),
  );
  const remove = useChange(() => kept(api.DELETE("/api/motifs/{id}", { params: { path: { id: motif.id }, query: { version: motif.version } } })));
  const make = useChange(() => kept<Brush>(api.POST("/api/brushes", { body: { name: motif.name, motif_id: motif.id } })));
  const users = workshop.brushes.filter((b) => b.motif_id === motif.id);
  return (
    <section aria-label="This motif">
      <input
        aria-label="Name of the motif"
        value={name}
        className="w-full border-b border-transparent font-display text-[17px] font-semibold hover:border-rule focus:border-loden"
        onChange={(e) => setName(e.target.value)}
        onBlur={() => (name.trim() && name !== motif.name ? change.mutate({ name: name.trim() }) : setName(motif.name))}
        onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
      />
      <p className="mb-2 text-moss">
        Frame {motif.width_mm.toFixed(2)} × {motif.height_mm.toFixed(2)} mm
      </p>
      <NumberField label="Base line, from the top" unit="mm" step={0.1} value={motif.base_line_mm} standard={motif.height_mm / 2} onSet={(base_line_mm) => change.mutate({ base_line_mm })} />
      <div className="mt-1 mb-3 flex gap-3 text-[12.5px]">
        {(
          [
            ["at the top", 0],
            ["in the middle", motif.height_mm / 2],
            ["at the foot", motif.height_mm],
          ] as const
        ).map(([words, mm]) => (
          <button key={words} className="text-indigo underline decoration-dotted" onClick={() => change.mutate({ base_line_mm: mm })}>
            {words}
          </button>
        ))}
      </div>
      <span className="block text-[12.5px] text-moss">Turn the artwork</span>
      <div className="mb-3 flex gap-1.5">
        <button className="plain-button" onClick={() => change.mutate({ turn_by_deg: -90 })}>
          Quarter left
        </button>
        <button className="plain-button" onClick={() => change.mutate({ turn_by_deg: 90 })}>
          Quarter right
        </button>
        <button className="plain-button" onClick={() => change.mutate({ trim: true })}>
          Trim
        </button>
      </div>
      {motif.left_out.length > 0 && (
        <div className="mb-3 border-l-[3px] border-weld bg-weld-wash px-3 py-1.5">
          <h3 className="text-[13px]">On the way in</h3>
          {motif.left_out.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
        </div>
      )}
      <div className="mb-4 flex flex-wrap items-center gap-2">
        <button className="firm-button" onClick={() => make.mutate(undefined, { onSuccess: (brush) => go("repeat", brush.id) })}>
          Make a brush of it
        </button>
        <button className="text-[12.5px] text-madder underline decoration-dotted" onClick={() => remove.mutate(undefined, { onSuccess: () => go("motif") })}>
          Delete
        </button>
      </div>
      {users.length > 0 && (
        <p className="mb-3 text-[12.5px] text-moss">
          Used by{" "}
          {users.map((b, i) => (
            <span key={b.id}>
              {i > 0 && ", "}
              <button className="text-indigo underline decoration-dotted" onClick={() => go("repeat", b.id)}>
                {b.name}
              </button>
            </span>
          ))}
        </p>
      )}
    </section>
  );
}
