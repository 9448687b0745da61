import type { Line } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { useSize } from "../../shared/view/WorkCanvas";
import { BendPlot, plotWidth } from "./BendPlot";
import { useLaidPage } from "./laidPage";

/** How tightly the chosen line bends along its length, against what its brush can take. */
export function BendStrip() {
  const { scenes, chosen: line } = useLaidPage();
  const scene = line ? scenes.find((each) => each.line_id === line.id) : undefined;
  const strip = scenes.find((each) => each.strip)?.strip ?? null;
  const [box, size] = useSize<HTMLElement>();
  return (
    <section ref={box} aria-label="Bend strip" className="h-[148px] shrink-0 border-t border-rule bg-work px-5 pt-2">
      <header className="flex items-baseline gap-4">
        <h2 className="shrink-0 text-[15px]">Bend strip</h2>
        <p className="truncate text-[12.5px] text-moss">{words(scene, line)}</p>
      </header>
      {scene && strip && scene.length_mm > 0 && <BendPlot scene={scene} strip={strip} width={plotWidth(size.width)} />}
    </section>
  );
}

function words(scene: Scene | undefined, line: Line | null): string {
  if (!line) return "Choose a line on the sheet or in the list to see how tightly it bends.";
  if (!scene) return line.visible ? "…" : `${line.name} is hidden.`;
  const tightest =
    scene.tightest_mm === null ? "straight between its corners" : `tightest bend ${scene.tightest_mm.toFixed(1)} mm`;
  const safe =
    scene.safe_mm === null
      ? scene.loose
        ? "Its pieces lie loosely, in any bend."
        : "Its pieces do not turn with the line."
      : `Its brush is safe down to ${scene.safe_mm.toFixed(1)} mm.`;
  return `${line.name}: ${scene.length_mm.toFixed(1)} mm, ${tightest}. ${safe}`;
}
