import { useLayoutEffect, useMemo, useState } from "react";
import type { Motif } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { useSize } from "../../shared/view/WorkCanvas";
import { useBench } from "./bench";
import { useLaidBench, useOpenBench } from "./openBench";
import { SheetCanvas } from "./SheetCanvas";
import { cellOf, partOf, type Cell } from "./sheetParts";
import { TrialCell } from "./TrialCell";
import { TrialHeader } from "./TrialHeader";
import { useInked } from "./useInked";

const SHEET: [number, number] = [100, 70];

/** The eight scenes side by side; one canvas paints them all, for a canvas each costs a layer each at every step of a drag. */
export function TrialSheet() {
  const { motifs, ground } = useOpenBench();
  const { trials, beside, header } = useLaidBench();
  const { night, glass } = ground;
  const hurry = useBench((bench) => (bench.inHand ? "soft" : "none"));
  const [width, height] = header?.trial_box ?? SHEET;
  const [sheet, size] = useSize<HTMLUListElement>();
  const [cells, setCells] = useState<Cell[]>([]);
  const count = trials.length;
  useLayoutEffect(() => {
    const found = sheet.current?.querySelectorAll<HTMLElement>("[data-pieces]") ?? [];
    const origin = sheet.current?.getBoundingClientRect();
    if (origin) setCells(Array.from(found, (element) => cellOf(element.getBoundingClientRect(), origin)));
  }, [sheet, size, count]);
  const { drawn, artworks } = useArtworks(motifs, trials, beside);
  // what was kept aside has the right half of its cell
  const picture = useMemo(() => {
    const parts = cells.flatMap((cell, i) => {
      if (!trials[i]) return [];
      const other = beside.get(trials[i].key);
      const half = other ? cell.width / 2 : cell.width;
      return [trials[i], other].flatMap((scene, k) =>
        scene
          ? [
              {
                ...partOf(scene, { ...cell, x: cell.x + k * half, width: half }, scene.box ?? [width, height], !k && !!other),
                artworks: artworks.get(scene),
              },
            ]
          : [],
      );
    });
    return size.width && size.height ? ({ parts, night, hurry, ground: glass, size } as const) : null;
  }, [trials, beside, width, height, cells, night, hurry, glass, size, artworks]);
  return (
    <>
      <TrialHeader width={width} />
      <ul
        ref={sheet}
        className={`relative grid min-h-0 flex-1 ${count > 8 ? "grid-cols-5" : "grid-cols-4"} grid-rows-2 gap-x-px gap-y-1`}
      >
        {trials.map((trial) => (
          <TrialCell key={trial.key} trial={trial} />
        ))}
        <li aria-hidden className="pointer-events-none absolute inset-0">
          <SheetCanvas motifs={drawn} sheet={picture} />
        </li>
      </ul>
    </>
  );
}

interface Artworks {
  drawn: Motif[];
  artworks: Map<Scene, [number, number]>;
}

/** All motifs that scenes are painted with, the brush's first, and where those of a scene are that has its own. */
function useArtworks(motifs: Motif[], trials: Scene[], beside: Map<string, Scene>): Artworks {
  const own = useMemo(() => [...trials, ...beside.values()].filter((scene) => scene.inked), [trials, beside]);
  const motifsOf = useInked(own);
  return useMemo(() => {
    if (!own.length) return { drawn: motifs, artworks: ALL };
    const drawn = [...motifs];
    const artworks = new Map<Scene, [number, number]>();
    for (const scene of own) {
      const from = drawn.length;
      drawn.push(...motifsOf(scene));
      artworks.set(scene, [from, drawn.length]);
    }
    return { drawn, artworks };
  }, [motifs, own, motifsOf]);
}

const ALL = new Map<Scene, [number, number]>();
