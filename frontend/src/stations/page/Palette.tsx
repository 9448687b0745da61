import type { Line } from "../../shared/api/client";
import { useMotifs } from "../../shared/api/motifs";
import { useLaidPage } from "./laidPage";
import { usePalette, type PaletteInk } from "./usePalette";

const MOST_TAKEN = 8;

/** The page's inks with their names and their contrast to the ground; one that changes changes every line that has it. */
export function Palette({ line }: { line: Line }) {
  const { page } = useLaidPage();
  const set = usePalette(page);
  const own: PaletteInk[] = page.palette.map(({ name, colour }) => ({ name, colour }));
  const put = (at: number, next: PaletteInk | null): PaletteInk[] =>
    own.flatMap((each, i) => (i !== at ? [each] : next ? [next] : []));
  return (
    <section aria-label="Palette of the page" className="mt-1.5 border-l-2 border-rule pl-2 text-[12.5px]">
      {page.palette.map(({ name, colour, contrast }, i) => (
        <div key={i} className="flex items-center gap-1.5">
          <input
            type="color"
            aria-label={`Colour of ${name}`}
            value={colour}
            className="h-[18px] w-[24px]"
            onChange={(event) => set(put(i, { name, colour: event.target.value }))}
          />
          <input
            aria-label={`Name of ink ${i + 1}`}
            defaultValue={name}
            className="min-w-0 flex-1 border-b border-transparent bg-transparent hover:border-rule focus:border-loden"
            onBlur={(event) => {
              const next = event.target.value.trim();
              if (next && next !== name) set(put(i, { name: next, colour }));
            }}
            onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
          />
          {contrast !== null && <span title="contrast to the ground, where it is least">{contrast.toFixed(1)} : 1</span>}
          <button aria-label={`Take ${name} off the palette`} className="px-1 text-moss" onClick={() => set(put(i, null))}>
            ×
          </button>
        </div>
      ))}
      <Taken line={line} onTake={(colour, name) => set([...own, { name, colour }])} />
    </section>
  );
}

/** Colours that can be added: those of the line's motif, the ground, and any other. */
function Taken({ line, onTake }: { line: Line; onTake: (colour: string, name: string) => void }) {
  const { workshop, page } = useLaidPage();
  const brush = workshop.brushes.find(({ id }) => id === line.brush_id);
  const motifs = useMotifs(workshop.motifs.filter(({ id }) => id === brush?.motif_id));
  const drawn = (motifs?.[0]?.shapes ?? []).flatMap(({ fill, stroke }) => [fill, stroke]).filter((each) => each !== null);
  const colours = [...new Set([...page.ground_colours, ...drawn])].filter((colour) =>
    page.palette.every((own) => own.colour !== colour),
  );
  return (
    <div className="mt-0.5 flex items-center gap-1">
      <span className="text-moss">add</span>
      {colours.slice(0, MOST_TAKEN).map((colour) => {
        const from = page.ground_colours.includes(colour) ? "the ground" : (motifs?.[0]?.name ?? "the motif");
        return (
          <button
            key={colour}
            aria-label={`Add ${colour} of ${from}`}
            title={`of ${from}`}
            className="h-[18px] w-[18px] border border-rule"
            ref={(element) => element?.style.setProperty("background", colour)}
            onClick={() => onTake(colour, `${from} ${page.palette.length + 1}`)}
          />
        );
      })}
      <button className="thread-word" onClick={() => onTake("#7a6a58", `ink ${page.palette.length + 1}`)}>
        a new one
      </button>
    </div>
  );
}
