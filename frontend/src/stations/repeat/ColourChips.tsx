import { cssOf } from "../../shared/view/paints";
import { useLaidBench, useOpenBench } from "./openBench";

const MOST = 12; // pieces, or colours of a motif

/** The first motif's colours before and after the ink; of pieces that differ in colour, those of the first twelve. */
export function ColourChips() {
  const { motifs } = useOpenBench();
  const { flat } = useLaidBench();
  if (!flat?.wide) return null;
  const { paints, wide, colouring } = flat;
  if (colouring.length) {
    const rows = Array.from(colouring.subarray(0, MOST));
    return <Chips label="The first twelve pieces" colours={rows.map((row) => cssOf(paints[row * wide]))} />;
  }
  const [{ piece, shapes }] = motifs;
  const drawn = (piece?.shapes ?? shapes).flatMap(({ fill, stroke }) => [fill, stroke].filter((each) => each !== null));
  return (
    <span className="flex items-center gap-1.5">
      <Chips label="Colours as drawn" colours={drawn.slice(0, MOST / 2)} />
      <span aria-hidden>→</span>
      <Chips label="Colours in the ink" colours={Array.from(paints.subarray(0, Math.min(wide, drawn.length, MOST / 2)), cssOf)} />
    </span>
  );
}

function Chips({ label, colours }: { label: string; colours: string[] }) {
  return (
    <span role="img" aria-label={`${label}: ${colours.join(", ")}`} className="flex">
      {colours.map((colour, i) => (
        <span key={i} className="h-[16px] w-[11px]" ref={(element) => element?.style.setProperty("background", colour)} />
      ))}
    </span>
  );
}
