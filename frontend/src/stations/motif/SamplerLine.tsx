import { useCallback } from "react";
import type { Motif, Schemas } from "../../shared/api/client";
import { go } from "../../shared/ui/place";
import type { Paint } from "../../shared/view/layers";
import { strokeHairline } from "../../shared/view/marks";
import { laidArtwork, passesOf, stampOf, stampShapes } from "../../shared/view/stamp";
import { fitView } from "../../shared/view/view";
import { useSize, WorkCanvas } from "../../shared/view/WorkCanvas";
import { NAMES } from "./pieceNames";
import type { Role } from "./roles";

/** Pixels around the sample: half a slot at its very ends, and a little more. */
const MARGIN = 16;

interface Props {
  name: string;
  data: Schemas["SampleMessage"] | undefined;
  motifs: Motif[] | null;
  open: number;
  onMissing: (role: Role) => void;
}

/** The small line with all pieces of a brush on it. */
export function SamplerLine({ name, data, motifs, open, onMissing }: Props) {
  const [box, size] = useSize<HTMLDivElement>();
  const width = data ? data.box[2] - data.box[0] : 1;
  const height = data ? data.box[3] - data.box[1] : 1;
  const fitted = fitView(size.width, size.height, [width, height], MARGIN);
  const view = {
    scale: fitted.scale,
    x: fitted.x - (data?.box[0] ?? 0) * fitted.scale,
    y: fitted.y - (data?.box[1] ?? 0) * fitted.scale,
  };
  const paint = useCallback<Paint>(
    (ctx, _area, ratio) => {
      if (!data || !motifs) return;
      strokeHairline(ctx, data.path, view, ratio, "#c98d84", 1, [1, 4]);
      const stamps = new Map(motifs.map((motif) => [motif.id, stampOf(laidArtwork(motif))]));
      const s = view.scale * ratio;
      for (const pass of passesOf([...stamps.values()]))
        for (const { motif_id, matrix } of data.pieces) {
          const [stamp, [a, b, c, d, e, f]] = [stamps.get(motif_id), matrix];
          ctx.setTransform(a * s, b * s, c * s, d * s, e * s + view.x * ratio, f * s + view.y * ratio);
          if (stamp) stampShapes(ctx, stamp, 0, pass);
        }
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the view follows from the sample and the size
    [data, motifs, view.scale, view.x, view.y],
  );
  return (
    <div ref={box} className="weave relative h-[150px] border border-rule">
      <WorkCanvas paint={paint} label={`The pieces of ${name} on the sampler`} testId="sampler" className="absolute inset-0" />
      {data?.slots.map((slot) => (
        <button
          key={slot.role}
          title={
            slot.made
              ? `Bring the ${NAMES[slot.role]} to the bench`
              : `No ${NAMES[slot.role]} yet: press to make one from the repeat`
          }
          aria-label={slot.made ? `${NAMES[slot.role]}, to the bench` : `No ${NAMES[slot.role]} yet`}
          className={`absolute h-[26px] w-[26px] -translate-x-1/2 -translate-y-1/2 ${slotLook(slot.made, slot.motif_id === open)}`}
          style={{ left: view.x + slot.x_mm * view.scale, top: view.y + slot.y_mm * view.scale }}
          onClick={() => (slot.made && slot.motif_id ? go("motif", slot.motif_id) : onMissing(slot.role as Role))}
        />
      ))}
    </div>
  );
}

function slotLook(made: boolean, open: boolean): string {
  if (made) return open ? "border-2 border-indigo" : "hover:border hover:border-indigo";
  return "border border-dashed border-moss bg-[repeating-linear-gradient(45deg,transparent_0_4px,#cfd3c9_4px_5px)]";
}
