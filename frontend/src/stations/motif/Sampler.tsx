import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, kept, type Brush, type Schemas, type Workshop } from "../../shared/api/client";
import { useMotifs } from "../../shared/api/motifs";
import { go } from "../../shared/ui/place";
import { MakePiece, type Role } from "./MakePiece";
import { SamplerLine } from "./SamplerLine";

/** All pieces of a brush on one small line with a corner of each kind; press one to bring it to the bench, a missing one to make it. */
export function Sampler({ brush, workshop, open }: { brush: Brush; workshop: Workshop; open: number }) {
  const versions = workshop.motifs.map((m) => `${m.id}.${m.version}`).join(" ");
  const { data } = useQuery({
    queryKey: ["sampler", brush.id, brush.version, versions],
    queryFn: () => kept<Schemas["SampleMessage"]>(api.GET("/api/brushes/{id}/sampler", { params: { path: { id: brush.id } } })),
    placeholderData: (before) => before,
  });
  const own = useMemo(() => {
    const ids = new Set(data?.pieces.map((piece) => piece.motif_id));
    return workshop.motifs.filter((m) => ids.has(m.id));
  }, [data, workshop.motifs]);
  const motifs = useMotifs(own);
  const [asking, setAsking] = useState<Role | null>(null);
  const variants = brush.pieces.repeat.flatMap((id) => workshop.motifs.find((m) => m.id === id) ?? []);
  return (
    <section aria-label="Sampler" className="mb-2 shrink-0">
      <h2 className="text-[14px]">
        Sampler <span className="font-sans text-[12px] font-normal text-moss">{brush.name}, its pieces where they lie</span>
      </h2>
      <SamplerLine
        name={brush.name}
        data={data}
        motifs={motifs}
        open={open}
        onMissing={(role) => setAsking(asking === role ? null : role)}
      />
      {asking && <MakePiece brush={brush} role={asking} versions={versions} onMade={() => setAsking(null)} />}
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
