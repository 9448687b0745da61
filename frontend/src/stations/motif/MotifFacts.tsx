import { useState } from "react";
import { api, kept, type Brush, type Motif, type MotifBench, type Workshop } from "../../shared/api/client";
import { useChange, withVersion } from "../../shared/api/queries";
import { Picker } from "../../shared/ui/Picker";
import { go } from "../../shared/ui/place";
import { Sampler } from "./Sampler";
import { StarterFigures } from "./StarterFigures";
import type { MotifEdit } from "./useMotifEdit";

const ROLES = [
  { role: "repeat", name: "variant" },
  { role: "start", name: "start piece" },
  { role: "end", name: "end piece" },
  { role: "outside_corner", name: "outside corner" },
  { role: "inside_corner", name: "inside corner" },
] as const;

interface Props {
  motif: Motif;
  workshop: Workshop;
  bench: MotifBench;
  edit: MotifEdit;
}

/** What a motif is called, what it was made of, and where it goes: a brush of its own, or a variant of one. */
export function MotifFacts({ motif, workshop, bench, edit }: Props) {
  const [name, setName] = useState(motif.name);
  const rename = useChange((next: string) =>
    withVersion("motif", motif, (version) =>
      kept<Motif>(api.PATCH("/api/motifs/{id}", { params: { path: { id: motif.id } }, body: { name: next, version } })),
    ),
  );
  const remove = useChange(() =>
    kept(api.DELETE("/api/motifs/{id}", { params: { path: { id: motif.id }, query: { version: motif.version } } })),
  );
  const make = useChange(() => kept<Brush>(api.POST("/api/brushes", { body: { name: motif.name, motif_id: motif.id } })));
  const [role, setRole] = useState(0);
  const join = useChange((brush: Brush) => {
    const own = ROLES[role].role;
    const motif_ids = own === "repeat" ? [...brush.pieces.repeat, motif.id] : [motif.id];
    return kept<Brush>(
      api.POST("/api/brushes/{id}/pieces", {
        params: { path: { id: brush.id } },
        body: { version: brush.version, role: own, motif_ids },
      }),
    );
  });
  const leave = useChange((brush: Brush) => {
    const own = ROLES.find((r) =>
      r.role === "repeat" ? brush.pieces.repeat.includes(motif.id) : brush.pieces[r.role] === motif.id,
    )!.role;
    const motif_ids = own === "repeat" ? brush.pieces.repeat.filter((id) => id !== motif.id) : [];
    return kept<Brush>(
      api.POST("/api/brushes/{id}/pieces", {
        params: { path: { id: brush.id } },
        body: { version: brush.version, role: own, motif_ids },
      }),
    );
  });
  const users = workshop.brushes.filter((b) => Object.values(b.pieces).flat().includes(motif.id));
  const starter = bench.motif.recipes.find((r) => r.kind === "starter");
  return (
    <section aria-label="This motif" className="max-h-[calc(100%-150px)] shrink-0 overflow-y-auto">
      <input
        aria-label="Name of the motif"
        value={name}
        className="w-full border-b border-transparent font-display text-[17px] font-semibold hover:border-rule focus:border-loden"
        onChange={(e) => setName(e.target.value)}
        onBlur={() => (name.trim() && name !== motif.name ? rename.mutate(name.trim()) : setName(motif.name))}
        onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
      />
      <p className="mb-1.5 text-moss">
        Frame {bench.motif.width_mm.toFixed(2)} × {bench.motif.height_mm.toFixed(2)} mm, {bench.weight.parts}{" "}
        {bench.weight.parts === 1 ? "part" : "parts"}
      </p>
      {starter && <StarterFigures bench={bench} edit={edit} group={starter.group} />}
      <div className="my-2 flex gap-1.5">
        <button
          className="plain-button px-1.5 py-0.5 whitespace-nowrap"
          onClick={() => edit.keep({ op: "turn", turn_deg: -90 }, { label: `turn ${motif.name}` })}
        >
          Quarter left
        </button>
        <button
          className="plain-button px-1.5 py-0.5 whitespace-nowrap"
          onClick={() => edit.keep({ op: "turn", turn_deg: 90 }, { label: `turn ${motif.name}` })}
        >
          Quarter right
        </button>
        <a className="plain-button px-1.5 py-0.5 whitespace-nowrap" href={`/api/motifs/${motif.id}/motif.svg`} download>
          Take as SVG
        </a>
      </div>
      {bench.motif.left_out.length > 0 && (
        <div className="mb-2 border-l-[3px] border-weld bg-weld-wash px-3 py-1.5">
          <h3 className="text-[13px]">On the way in</h3>
          {bench.motif.left_out.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
        </div>
      )}
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <button className="firm-button" onClick={() => make.mutate(undefined, { onSuccess: (brush) => go("repeat", brush.id) })}>
          Make a brush of it
        </button>
        <span className="flex items-baseline gap-1.5 text-[12.5px]">
          or the
          <Picker label="Role" options={ROLES.map((r, id) => ({ id, name: r.name }))} value={role} onSet={setRole} />
          of
          <Picker
            label="Brush to join"
            placeholder="a brush"
            options={workshop.brushes.filter((b) => !b.pieces.repeat.includes(motif.id))}
            value={null}
            onSet={(id) => {
              const brush = workshop.brushes.find((b) => b.id === id);
              if (brush) join.mutate(brush, { onSuccess: () => ROLES[role].role === "repeat" && go("repeat", id) });
            }}
          />
        </span>
        <button
          className="text-[12.5px] text-madder underline decoration-dotted"
          onClick={() => remove.mutate(undefined, { onSuccess: () => go("motif") })}
        >
          Delete
        </button>
      </div>
      {users[0] && <Sampler brush={users[0]} workshop={workshop} open={motif.id} />}
      {users.length > 0 && (
        <p className="mb-2 text-[12.5px] text-moss">
          Used by{" "}
          {users.map((b, i) => (
            <span key={b.id}>
              {i > 0 && ", "}
              <button className="text-indigo underline decoration-dotted" onClick={() => go("repeat", b.id)}>
                {b.name}
              </button>
              {(b.pieces.repeat.length > 1 || !b.pieces.repeat.includes(motif.id)) && (
                <button
                  className="ml-1 text-madder underline decoration-dotted"
                  aria-label={`Take it out of ${b.name}`}
                  onClick={() => leave.mutate(b)}
                >
                  take it out
                </button>
              )}
            </span>
          ))}
        </p>
      )}
    </section>
  );
}
