import type { Scene } from "../../shared/api/scenes";
import { Findings } from "../../shared/ui/Findings";
import { reachOf } from "../../shared/ui/reach";
import { useBench } from "./bench";
import { useLaidBench, useOpenBench } from "./openBench";
import { JoinPlot } from "./JoinPlot";
import { TrialPoints, type SheetPoint } from "./TrialPoints";
import { TrialScene } from "./TrialScene";
import { useTrialCures } from "./useTrialCures";
import { useMotifsOf } from "./useInked";

/** One trial line large, its findings beside it with their cures. */
export function TrialLarge({ scene, box }: { scene: Scene; box: [number, number] }) {
  const { brush, workshop, ground } = useOpenBench();
  const motifs = useMotifsOf(scene);
  const { cured, shown: settings } = useLaidBench();
  const asked = useBench((bench) => bench.shaped[scene.key]);
  const open = useBench((bench) => bench.open);
  const shape = useBench((bench) => bench.shape);
  const onShape = (points: SheetPoint[] | null): void => shape(scene.key, points);
  const { night } = ground;
  const { shown, listed, chosen, choose, preview, take } = useTrialCures(scene);
  return (
    <div className="flex min-h-0 flex-1 gap-3">
      <div className="flex min-w-0 flex-1 flex-col">
        <header className="mb-1.5 flex items-baseline gap-3">
          <button className="plain-button shrink-0 whitespace-nowrap" onClick={() => open(null)}>
            All trial lines
          </button>
          <h2 className="text-[15px]">{scene.name}</h2>
          <p className="truncate text-[12.5px] text-moss">
            {scene.length_mm.toFixed(1)} mm, {scene.pieces} pieces
            {scene.points && !listed && " · drag its points"}
            {listed && <b className="text-madder"> · showing the cure, not yet taken</b>}
          </p>
          {scene.moved && (
            <button className="plain-button ml-auto px-1.5 py-0 whitespace-nowrap" onClick={() => onShape(null)}>
              As it stands
            </button>
          )}
        </header>
        <div className={`relative min-h-0 flex-1 border border-rule ${ground.weave}`} style={ground.style}>
          <TrialScene
            scene={scene}
            motifs={motifs}
            box={box}
            on={{ night, ground: ground.glass }}
            chosen={listed ? null : chosen}
          />
          {scene.points && (
            <TrialPoints points={scene.points} asked={asked ?? scene.points} box={box} night={night} onMove={onShape} />
          )}
        </div>
        <JoinPlot scene={scene} settings={settings} night={night} />
      </div>
      <div className="flex w-[262px] shrink-0 flex-col">
        <h3 className="mb-1.5 text-[15px]">Findings</h3>
        <div className="min-h-0 flex-1 overflow-y-auto pr-1">
          {shown.findings.length ? (
            <Findings
              findings={shown.findings}
              waiting={!cured}
              onPreview={preview}
              onTake={take}
              reachOf={() => reachOf(workshop, brush.id)}
              onGoTo={choose}
              chosen={chosen}
            />
          ) : (
            <p className="text-moss">None: {scene.verdict}.</p>
          )}
        </div>
      </div>
    </div>
  );
}
