import type { Edit } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { useOpenMotif } from "./openMotif";

/** A starter's figures, live while they are dragged. */
export function StarterFigures({ group }: { group: number }) {
  const { bench, edit } = useOpenMotif();
  const recipe = bench.motif.recipes.find((r) => r.group === group);
  if (!recipe) return null;
  const change = (name: string, value: number): Edit => ({ op: "figures", group, figures: { [name]: value } });
  return (
    <fieldset className="mt-2 border-t border-rule pt-1.5">
      <legend className="pr-2 text-[12.5px] text-moss">Figures of the {String(recipe.figures.starter).replace("-", " ")}</legend>
      <div className="grid grid-cols-2 gap-x-3">
        {Object.entries(recipe.figures)
          .filter((entry): entry is [string, number] => typeof entry[1] === "number")
          .map(([name, value]) => (
            <NumberField
              key={name}
              label={name[0].toUpperCase() + name.slice(1)}
              unit={UNITS[name] ?? "mm"}
              step={STEPS[name] ?? 0.1}
              value={value}
              onDrag={(v) => edit.show(change(name, v))}
              onSet={(v) => edit.keep(change(name, v), { label: `${name} to ${v}`, merge_key: `figure ${name}` })}
              onLeave={edit.drop}
            />
          ))}
      </div>
    </fieldset>
  );
}

const UNITS: Record<string, string> = { fullest: "%", depth: "", turns: "", points: "", sides: "", lean: "°", angle: "°" };
const STEPS: Record<string, number> = { fullest: 1, points: 1, sides: 1, turns: 0.25, lean: 1, angle: 1, depth: 1 };
