import { useMemo, useState } from "react";
import type { Scene } from "../../shared/api/scenes";
import { useLay } from "../../shared/api/useLay";
import { useBench } from "./bench";
import { DealCell } from "./DealCell";
import { draftOf, useLaidBench, useOpenBench } from "./openBench";
import { usePinned } from "./usePinned";
import { useInked } from "./useInked";

const AT_ONCE = 12;
const NONE: Scene[] = [];

/** Twelve arrangements of the brush side by side: pressed they are taken, held they are seen on the trial lines, the good ones pinned. */
export function DealTray({ onClose }: { onClose: () => void }) {
  const { brush, hands, ground } = useOpenBench();
  const { said } = useLaidBench();
  const held = useBench((bench) => bench.preview !== null);
  const arrangement = said.variants?.arrangement ?? 1;
  const [first, setFirst] = useState(() => Math.floor((arrangement - 1) / AT_ONCE) * AT_ONCE + 1);
  const [settings, setSettings] = useState(said);
  if (!held && settings !== said) setSettings(said); // what is held is one of the tray's own
  const body = useMemo(
    () => ({
      ...draftOf(brush),
      settings: { ...settings, variants: { ...settings.variants, arrangement: 1 } },
      first: Math.max(0, first),
    }),
    [brush, settings, first],
  );
  const { laid } = useLay("/api/bench/deals", body, { cures: false });
  const scenes = laid?.scenes ?? NONE;
  const motifsOf = useInked(scenes);
  const { pinned, toggle } = usePinned(brush);
  const take = (n: number): void => hands.set({ variants: { arrangement: n } }, `arrangement ${n}`);
  const tried = (n: number) => ({ ...said, variants: { ...said.variants, arrangement: n } });
  return (
    <div role="group" aria-label="Arrangements">
      <div className="flex items-baseline gap-3 text-[12.5px]">
        <button className="thread-word" onClick={onClose}>
          What varies
        </button>
        <button className="thread-word" disabled={first <= 1} onClick={() => setFirst(Math.max(1, first - AT_ONCE))}>
          twelve before
        </button>
        <button className="thread-word" onClick={() => setFirst(first + AT_ONCE)}>
          next twelve
        </button>
        <span className="text-moss">{pinned.length > 0 && "pinned:"}</span>
        {pinned.map((n) => (
          <button key={n} className="thread-word" aria-label={`Take pinned arrangement ${n}`} onClick={() => take(n)}>
            {n}
          </button>
        ))}
      </div>
      <div className="mt-1 grid grid-cols-4 gap-1">
        {scenes.map((scene) => {
          const n = Number(scene.name);
          return (
            <DealCell
              key={n}
              n={n}
              scene={scene}
              motifs={motifsOf(scene)}
              ground={ground.glass}
              chosen={n === arrangement}
              pinned={pinned.includes(n)}
              onTake={() => take(n)}
              onHold={(on) => hands.show(on ? tried(n) : null)}
              onPin={() => toggle(n)}
            />
          );
        })}
      </div>
    </div>
  );
}
