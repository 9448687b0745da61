import { BackRow } from "./BackRow";
import { FillRow } from "./FillRow";
import { GradientRow } from "./GradientRow";
import { LightRow } from "./LightRow";
import { useOpenMotif } from "./openMotif";
import { PartList } from "./PartList";
import { StrokeRow } from "./StrokeRow";

/** Fill, stroke, gradients, a back, and light on the chosen parts. */
export function PaintPanel() {
  const { bench, parts } = useOpenMotif();
  const shape = bench.motif.shapes[parts[0]];
  return (
    <div className="flex h-full gap-5">
      <PartList />
      <div className="min-w-0 flex-1 overflow-y-auto">
        {!shape && <p className="text-moss">Press a part on the bench or in the list to paint it.</p>}
        {shape && !shape.picture && (
          <>
            <FillRow shape={shape} />
            <StrokeRow shape={shape} />
            <GradientRow key={`${bench.motif.id} ${parts.join()}`} shape={shape} />
            <BackRow />
            <LightRow />
          </>
        )}
        {shape?.picture && (
          <p className="text-moss">
            A picture keeps its own colours{shape.picture.stencil ? "; as a stencil it takes the line’s ink" : ""}. Trace it to
            paint its shapes.
          </p>
        )}
      </div>
    </div>
  );
}
