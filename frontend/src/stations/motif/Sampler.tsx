import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, kept, type Brush, type Schemas, type Workshop } from "../../shared/api/client";
import { useMotifs } from "../../shared/api/motifs";
import { go } from "../../shared/ui/place";
import { MakePiece } from "./MakePiece";
import { NAMES } from "./pieceNames";
import { isCorner, type Role } from "./roles";
import { SamplerLine } from "./SamplerLine";
import { useMakePiece } from "./useMakePiece";
import { useWork } from "./work";

const SINGLE = ["start", "end", "outside_corner", "inside_corner"] as const;

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
  const [asking, setAsking] = useState<"start" | "end" | null>(null);
  const turnTo = useWork((work) => work.turnTo);
  const make = useMakePiece(brush);
  const role = SINGLE.find((each) => brush.pieces[each] === open);
  const hatched = data?.slots.some((slot) => !slot.made);
  const variants = brush.pieces.repeat.flatMap((id) => workshop.motifs.find((m) => m.id === id) ?? []);
  const ask = (wanted: Role): void => {
    if (isCorner(wanted)) turnTo({ brush: brush.id, role: wanted });
    else setAsking(asking === wanted ? null : wanted);
  };
  const missing = (wanted: Role): void => {
    ask(wanted);
    if (isCorner(wanted)) make(wanted); // seen at once, in the way that suits the brush
  };
  return (
    <section aria-label="Sampler" className="mb-2 shrink-0">
      <h2 className="text-[14px]">
        Sampler <span className="font-sans text-[12px] font-normal text-moss">{brush.name}, its pieces where they lie</span>
      </h2>
      <SamplerLine name={brush.name} data={data} motifs={motifs} open={open} onMissing={missing} />
      {asking && <MakePiece brush={brush} role={asking} onMade={() => setAsking(null)} />}
      {role && asking !== role && (
        <p className="mt-1 text-[12.5px]">
          The {NAMES[role]}, in use.{" "}
          <button className="thread-word" onClick={() => ask(role)}>
            {isCorner(role) ? "See it at any angle, or make it another way" : "Make it anew"}
          </button>
          {!isCorner(role) && " from the repeat: the new one takes its place."}
        </p>
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
        . {hatched && "Press a hatched place to make its piece from the repeat: it is used at once."}
      </p>
    </section>
  );
}
