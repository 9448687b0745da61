import { useState } from "react";
import type { Line, Workshop } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { NumberField } from "../../shared/ui/NumberField";
import { Picker } from "../../shared/ui/Picker";
import { go } from "../../shared/ui/place";
import type { LineChanges } from "./usePage";

const PRESSED = "aria-pressed:outline-2 aria-pressed:outline-loden";

const INKS: [string, string][] = [
  ["#a63a2f", "madder"],
  ["#2c4a84", "indigo"],
  ["#c9971c", "weld"],
  ["#3f7150", "woad green"],
  ["#5a4027", "walnut"],
  ["#20352c", "loden"],
];

interface Props {
  line: Line;
  workshop: Workshop;
  scene: Scene | undefined;
  changes: LineChanges;
  onGone: () => void;
}

/** What can be said of one line: its name, brush, size and ink. */
export function LineSettings({ line, workshop, scene, changes, onGone }: Props) {
  const [name, setName] = useState(line.name);
  const change = (patch: Parameters<LineChanges["change"]["mutate"]>[0]) => changes.change.mutate(patch);
  const rename = (): void => {
    const next = name.trim();
    if (next && next !== line.name) change({ line, name: next, label: `rename ${line.name}` });
    else setName(line.name);
  };
  return (
    <section aria-label="Chosen line" className="mt-2 border-l-[3px] border-indigo bg-work px-3 py-2">
      <div className="flex items-baseline gap-2">
        <input
          aria-label="Name of the line"
          value={name}
          className="min-w-0 flex-1 border-b border-transparent font-display text-[15px] font-semibold hover:border-rule focus:border-loden"
          onChange={(e) => setName(e.target.value)}
          onBlur={rename}
          onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
        />
        <button
          className="text-[12.5px] text-madder underline decoration-dotted"
          onClick={() => {
            changes.remove.mutate(line);
            onGone();
          }}
        >
          Delete
        </button>
      </div>
      <div className="mt-1.5 grid grid-cols-[1fr_100px] gap-3">
        <div className="min-w-0">
          <span className="block text-[12.5px] text-moss">Brush</span>
          <Picker
            label="Brush"
            options={workshop.brushes}
            value={line.brush_id}
            onSet={(brush_id) => change({ line, brush_id, label: `brush of ${line.name}` })}
          />
          <button
            className="mt-1.5 py-1 text-[12px] text-indigo underline decoration-dotted"
            onClick={() => go("repeat", line.brush_id)}
          >
            Tune it at Repeat
          </button>
        </div>
        <NumberField
          label="Size"
          unit="%"
          value={line.size_pct}
          step={5}
          standard={100}
          limitsOf="spacing.size_pct"
          onSet={(size_pct) =>
            change({ line, size_pct, label: `size of ${line.name} to ${size_pct} %`, merge_key: `size ${line.id}` })
          }
        />
      </div>
      <div className="mt-1.5 flex items-center gap-1.5">
        <span className="mr-1 text-[12.5px] text-moss">Ink</span>
        <button
          aria-pressed={line.ink === null}
          className="border-b-2 border-transparent px-0.5 text-[12.5px] aria-pressed:border-madder aria-pressed:font-semibold"
          onClick={() => change({ line, ink: "own", label: `own colours for ${line.name}` })}
        >
          own colours
        </button>
        {INKS.map(([ink, word]) => (
          <button
            key={ink}
            title={word}
            aria-label={`Ink ${word}`}
            aria-pressed={line.ink === ink}
            className={`h-[18px] w-[18px] rounded-full border border-work outline-1 outline-rule ${PRESSED}`}
            ref={(element) => element?.style.setProperty("background", ink)}
            onClick={() => change({ line, ink, label: `${word} for ${line.name}` })}
          />
        ))}
        <input
          type="color"
          aria-label="Another ink"
          value={line.ink ?? "#20352c"}
          className="ml-auto h-[20px] w-[26px]"
          onChange={(e) => change({ line, ink: e.target.value, label: `ink of ${line.name}`, merge_key: `ink ${line.id}` })}
        />
      </div>
      <p className="mt-1.5 min-h-[37px] text-[12.5px] text-moss" data-testid="line-figures">
        {scene ? figures(scene) : "Hidden."}
      </p>
    </section>
  );
}

function figures(scene: Scene): string {
  if (scene.refused) return scene.refused;
  const pitch = scene.pitch_mm === null ? "" : ` every ${scene.pitch_mm.toFixed(2)} mm`;
  const eased =
    scene.ease === "leave" || Math.abs(scene.eased_pct) < 0.05 ? "" : `, ${scene.ease} eased by ${scene.eased_pct.toFixed(1)} %`;
  return `${scene.pieces} pieces${pitch}${eased}.`;
}
