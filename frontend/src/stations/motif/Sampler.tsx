import { useQuery } from "@tanstack/react-query";
import { useCallback, useMemo, useState } from "react";
import { api, kept, type Brush, type Schemas, type Workshop } from "../../shared/api/client";
import { useMotifs } from "../../shared/api/motifs";
import { useChange } from "../../shared/api/queries";
import { go } from "../../shared/ui/place";
import { fitView } from "../../shared/view/view";
import { laidArtwork, stampOf, stampShapes } from "../../shared/view/stamp";
import { strokeHairline } from "../../shared/view/marks";
import type { Paint } from "../../shared/view/layers";
import { useSize, WorkCanvas } from "../../shared/view/WorkCanvas";
import { CornerProposals, type CornerRole } from "./CornerProposals";

type Sample = Schemas["SampleMessage"];
type Role = Schemas["MakePiece"]["role"];

const NAMES: Record<string, string> = {
  start: "start piece",
  end: "end piece",
  outside_corner: "outside corner",
  inside_corner: "inside corner",
};

const ENDS = [
  ["half of it", "half"],
  ["mirrored", "mirror"],
  ["turned", "turned"],
  ["the same", "same"],
] as const;
const isCorner = (role: Role): role is CornerRole => role.endsWith("corner");

/** All pieces of a brush on one small line with a corner of each kind; press one to bring it to the bench, a missing one to make it. */
export function Sampler({ brush, workshop, open }: { brush: Brush; workshop: Workshop; open: number }) {
  const versions = workshop.motifs.map((m) => `${m.id}.${m.version}`).join(" ");
  const { data } = useQuery({
    queryKey: ["sampler", brush.id, brush.version, versions],
    queryFn: () => kept<Sample>(api.GET("/api/brushes/{id}/sampler", { params: { path: { id: brush.id } } })),
    placeholderData: (before) => before,
  });
  const own = useMemo(() => {
    const ids = new Set(data?.pieces.map((piece) => piece.motif_id));
    return workshop.motifs.filter((m) => ids.has(m.id));
  }, [data, workshop.motifs]);
  const motifs = useMotifs(own);
  const [box, size] = useSize<HTMLDivElement>();
  const [asking, setAsking] = useState<Role | null>(null);
  const make = useChange((input: { role: Role; way: Schemas["MakePiece"]["way"] }) =>
    kept<Brush>(
      api.POST("/api/brushes/{id}/make-piece", {
        params: { path: { id: brush.id } },
        body: { version: brush.version, ...input },
      }),
    ),
  );
  const width = data ? data.box[2] - data.box[0] : 1;
  const height = data ? data.box[3] - data.box[1] : 1;
  const fitted = fitView(size.width, size.height, [width, height], 4);
  const view = {
    scale: fitted.scale,
    x: fitted.x - (data?.box[0] ?? 0) * fitted.scale,
    y: fitted.y - (data?.box[1] ?? 0) * fitted.scale,
  };
  const paint = useCallback<Paint>(
    (ctx, _area, ratio) => {
      if (!data || !motifs) return;
      strokeHairline(ctx, data.path, view, ratio, "#c98d84", 1, [1, 4]);
      for (const piece of data.pieces) {
        const motif = motifs.find((m) => m.id === piece.motif_id);
        if (!motif) continue;
        const s = view.scale * ratio;
        const [a, b, c, d, e, f] = piece.matrix;
        ctx.setTransform(a * s, b * s, c * s, d * s, e * s + view.x * ratio, f * s + view.y * ratio);
        stampShapes(ctx, stampOf(laidArtwork(motif)));
      }
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the view follows from the sample and the size
    [data, motifs, view.scale, view.x, view.y],
  );
  const variants = brush.pieces.repeat.flatMap((id) => workshop.motifs.find((m) => m.id === id) ?? []);
  return (
    <section aria-label="Sampler" className="mb-2 shrink-0">
      <h2 className="text-[14px]">
        Sampler <span className="font-sans text-[12px] font-normal text-moss">{brush.name}, its pieces where they lie</span>
      </h2>
      <div ref={box} className="weave relative h-[150px] border border-rule">
        <WorkCanvas
          paint={paint}
          label={`The pieces of ${brush.name} on the sampler`}
          testId="sampler"
          className="absolute inset-0"
        />
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
            onClick={() =>
              slot.made && slot.motif_id
                ? go("motif", slot.motif_id)
                : setAsking(asking === slot.role ? null : (slot.role as Role))
            }
          />
        ))}
      </div>
      {asking && (
        <p className="mt-1 text-[12.5px]">
          Make the {NAMES[asking]} from the repeat:{" "}
          {!isCorner(asking) &&
            ENDS.map(([words, way]) => (
              <button
                key={way}
                className="thread-word mr-2"
                onClick={() => make.mutate({ role: asking, way }, { onSuccess: () => setAsking(null) })}
              >
                {words}
              </button>
            ))}
        </p>
      )}
      {asking && isCorner(asking) && (
        <CornerProposals
          brush={brush}
          role={asking}
          versions={versions}
          onTake={(way) => make.mutate({ role: asking, way }, { onSuccess: () => setAsking(null) })}
        />
      )}
      <p className="mt-1 text-[12px] text-moss">
        Repeat:{" "}
        {variants.map((m, i) => (
          <span key={m.id}>
            {i > 0 && ", "}
            <button
              className={m.id === open ? "font-semibold text-indigo" : "text-indigo underline decoration-dotted"}
              onClick={() => go("motif", m.id)}
            >
              {m.name}
            </button>
          </span>
        ))}
        . Hatched places have no piece yet.
      </p>
    </section>
  );
}

function slotLook(made: boolean, open: boolean): string {
  if (made) return open ? "border-2 border-indigo" : "hover:border hover:border-indigo";
  return "border border-dashed border-moss bg-[repeating-linear-gradient(45deg,transparent_0_4px,#cfd3c9_4px_5px)]";
}
