import type { Line, Ready } from "../../shared/api/client";
import { runOf } from "../../shared/api/runs";
import type { Scene } from "../../shared/api/scenes";
import { NameField } from "../../shared/ui/NameField";
import { NumberField } from "../../shared/ui/NumberField";
import { Picker } from "../../shared/ui/Picker";
import { go } from "../../shared/ui/place";
import { BrushPicture } from "./BrushPicture";
import { useDesk } from "./desk";
import { Dealt } from "./Dealt";
import { Inks } from "./Inks";
import { useLaidPage } from "./laidPage";
import { ReadyFigures } from "./ReadyFigures";
import { Sides } from "./Sides";
import { Smoothing } from "./Smoothing";
import type { LineChanges } from "./usePage";

/** What can be said of one line: its name, brush, size and ink. */
export function LineSettings({ line }: { line: Line }) {
  const { workshop, scenes, changes } = useLaidPage();
  const choose = useDesk((desk) => desk.choose);
  const scene = scenes.find((each) => each.line_id === line.id);
  const change = (patch: Parameters<LineChanges["change"]["mutate"]>[0]) => changes.change.mutate(patch);
  return (
    <section aria-label="Chosen line" className="mt-2 border-l-[3px] border-indigo bg-work px-3 py-2">
      <div className="flex items-baseline gap-2">
        <NameField
          label="Name of the line"
          name={line.name}
          className="min-w-0 flex-1 text-[15px]"
          onRename={(name) => change({ line, name, label: `rename ${line.name}` })}
        />
        <button
          className="text-[12.5px] text-madder underline decoration-dotted"
          onClick={() => {
            changes.remove.mutate(line);
            choose(null);
          }}
        >
          Delete
        </button>
      </div>
      <div className="mt-1.5 grid grid-cols-[1fr_100px] gap-3">
        <div className="min-w-0">
          <span className="mb-1 flex items-center gap-2 text-[12.5px] text-moss">
            Brush
            <button className="min-h-6 text-indigo underline decoration-dotted" onClick={() => go("repeat", line.brush_id)}>
              tune it at Repeat
            </button>
          </span>
          <Picker
            label="Brush"
            options={workshop.brushes}
            value={line.brush_id}
            onSet={(brush_id) => change({ line, brush_id, label: `brush of ${line.name}` })}
            picture={(id) => <BrushPicture brushId={id} />}
          />
        </div>
        <NumberField
          label="Size"
          unit="%"
          value={line.size_pct}
          step={5}
          standard={100}
          limitsOf="spacing.size_pct"
          onSet={(size_pct) =>
            change({ line, size_pct, label: `size of ${line.name} to ${size_pct} %`, merge_key: runOf(`size ${line.id}`) })
          }
        />
      </div>
      <Smoothing line={line} />
      {line.source.kind === "ready" && <ReadyFigures line={line} source={line.source as unknown as Ready} />}
      <Inks line={line} />
      <Dealt line={line} />
      <p className="mt-1.5 min-h-[37px] text-[12.5px] text-moss" data-testid="line-figures">
        {scene ? figures(scene) : line.visible ? "…" : "Hidden."} <Sides line={line} />
      </p>
    </section>
  );
}

function figures(scene: Scene): string {
  if (scene.refused) return scene.refused;
  const pitch = scene.pitch_mm === null ? "" : ` every ${scene.pitch_mm.toFixed(2)} mm`;
  const eased =
    scene.ease === "leave" || Math.abs(scene.eased_pct) < 0.05
      ? ""
      : `, ${scene.ease} eased by ${scene.eased_pct.toFixed(1).replace("-", "−")} %`;
  return `${scene.pieces} pieces${pitch}${eased}.`;
}
