import { api, kept, type Brush, type Motif } from "../../shared/api/client";
import { useChange, withVersion } from "../../shared/api/queries";
import { useLetters } from "../../shared/ui/keys";
import { NameField } from "../../shared/ui/NameField";
import { go } from "../../shared/ui/place";
import { Sampler } from "./Sampler";
import { StarterFigures } from "./StarterFigures";
import { ItsPicture } from "./ItsPicture";
import { JoinBrush } from "./JoinBrush";
import { useOpenMotif } from "./openMotif";
import { UsedBy } from "./UsedBy";

/** What a motif is called, what it was made of, and where it goes: a brush of its own, or a variant of one. */
export function MotifFacts() {
  const { motif, workshop, bench, edit } = useOpenMotif();
  const rename = useChange((next: string) =>
    withVersion("motif", motif, (version) =>
      kept<Motif>(api.PATCH("/api/motifs/{id}", { params: { path: { id: motif.id } }, body: { name: next, version } })),
    ),
  );
  const remove = useChange(() =>
    kept(api.DELETE("/api/motifs/{id}", { params: { path: { id: motif.id }, query: { version: motif.version } } })),
  );
  const make = useChange(() => kept<Brush>(api.POST("/api/brushes", { body: { name: motif.name, motif_id: motif.id } })));
  const makeBrush = (): void => make.mutate(undefined, { onSuccess: (brush) => go("repeat", brush.id) });
  useLetters([{ letter: "m", words: "make a brush of it", act: makeBrush }]);
  const duplicate = useChange(() => kept<Motif>(api.POST("/api/motifs/{id}/copy", { params: { path: { id: motif.id } } })));
  const users = workshop.brushes.filter((b) => Object.values(b.pieces).flat().includes(motif.id));
  const starter = bench.motif.recipes.find((r) => r.kind === "starter");
  return (
    <section aria-label="This motif" className="max-h-[calc(100%-150px)] shrink-0 overflow-y-auto">
      <NameField
        label="Name of the motif"
        name={motif.name}
        className="w-full text-[17px]"
        onRename={(next) => rename.mutate(next)}
      />
      <p className="mb-1.5 text-moss">
        Frame {bench.motif.width_mm.toFixed(2)} × {bench.motif.height_mm.toFixed(2)} mm, {bench.weight.parts}{" "}
        {bench.weight.parts === 1 ? "part" : "parts"}
      </p>
      {bench.motif.picture && <ItsPicture picture={bench.motif.picture} />}
      {starter && <StarterFigures group={starter.group} />}
      <div className="my-2 flex flex-wrap gap-1.5">
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
        <button className="firm-button" onClick={makeBrush}>
          Make a brush of it
        </button>
        <JoinBrush />
        <span className="flex gap-2">
          <button
            className="text-[12.5px] underline decoration-dotted"
            aria-label="Duplicate this motif"
            onClick={() => duplicate.mutate(undefined, { onSuccess: (copy) => go("motif", copy.id) })}
          >
            Duplicate
          </button>
          <button
            className="text-[12.5px] text-madder underline decoration-dotted"
            onClick={() => remove.mutate(undefined, { onSuccess: () => go("motif") })}
          >
            Delete
          </button>
        </span>
      </div>
      {users[0] && <Sampler brush={users[0]} workshop={workshop} open={motif.id} />}
      {users.length > 0 && <UsedBy users={users} />}
    </section>
  );
}
