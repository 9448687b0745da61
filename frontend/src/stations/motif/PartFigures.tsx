import { NumberField } from "../../shared/ui/NumberField";
import { useOpenMotif } from "./openMotif";
import { StarterFigures } from "./StarterFigures";
import { round, unionBox } from "./view";

/** Where the chosen parts lie and how large they are, to be set in figures. */
export function PartFigures() {
  const { bench, edit, parts } = useOpenMotif();
  const own = parts.flatMap((i) => bench.motif.shapes[i] ?? []);
  const recipe = bench.motif.recipes.find((r) => r.group && own.some((s) => s.group === r.group) && r.kind === "starter");
  if (!own.length)
    return (
      <p className="w-[218px] shrink-0 text-moss">
        Press a part on the bench or in the list; Shift adds another. Then pull it to move, its arrow to size, its ring to turn.
      </p>
    );
  const box = unionBox(own.map((s) => s.box));
  const size = [box[2] - box[0], box[3] - box[1]];
  const one = (figure: string) => ({ merge_key: `${figure} of ${parts.join()}` });
  return (
    <div className="w-[218px] shrink-0 overflow-y-auto">
      <div className="grid grid-cols-2 gap-x-3">
        <NumberField
          relative
          label="From the left"
          unit="mm"
          step={0.1}
          value={box[0]}
          onSet={(v) => edit.keep({ op: "move", parts, dx_mm: round(v - box[0], 4), dy_mm: 0 }, one("left"))}
        />
        <NumberField
          relative
          label="From the top"
          unit="mm"
          step={0.1}
          value={box[1]}
          onSet={(v) => edit.keep({ op: "move", parts, dx_mm: 0, dy_mm: round(v - box[1], 4) }, one("top"))}
        />
        <NumberField
          relative
          label="Long"
          unit="mm"
          step={0.1}
          value={size[0]}
          onSet={(v) =>
            v > 0 &&
            size[0] > 0 &&
            edit.keep(
              { op: "transform", parts, scale_x: v / size[0], scale_y: 1, turn_deg: 0, about_mm: [box[0], box[1]] },
              one("long"),
            )
          }
        />
        <NumberField
          relative
          label="High"
          unit="mm"
          step={0.1}
          value={size[1]}
          onSet={(v) =>
            v > 0 &&
            size[1] > 0 &&
            edit.keep(
              { op: "transform", parts, scale_x: 1, scale_y: v / size[1], turn_deg: 0, about_mm: [box[0], box[1]] },
              one("high"),
            )
          }
        />
        <NumberField
          relative
          label="Turn by"
          unit="°"
          step={5}
          value={0}
          onSet={(v) => edit.keep({ op: "transform", parts, scale_x: 1, scale_y: 1, turn_deg: v, about_mm: null }, one("turn"))}
        />
      </div>
      {recipe && <StarterFigures group={recipe.group} />}
    </div>
  );
}
