import type { View } from "../../shared/view/view";
import { useOpenMotif } from "./openMotif";
import { MoveMark, SizeCorner, TurnKnob } from "./PartHandles";
import { round, unionBox, type Box } from "./view";

/** The chosen parts: pull them to move, the arrow to size, the ring to turn. */
export function PartMarks({ view }: { view: View }) {
  const { bench, parts } = useOpenMotif();
  const own = parts.flatMap((i) => bench.motif.shapes[i] ?? []);
  if (!own.length) return null;
  const [x0, y0, x1, y1] = unionBox(own.map((shape) => shape.box));
  const px = (mm: number): number => mm * view.scale;
  const box: Box = [view.x + px(x0), view.y + px(y0), view.x + px(x1), view.y + px(y1)];
  return (
    <g>
      <MoveMark box={box} at={round((x0 + x1) / 2, 2)} scale={view.scale} />
      <SizeCorner box={box} />
      <TurnKnob box={box} />
    </g>
  );
}
