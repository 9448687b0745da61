import { useLayoutEffect, useMemo, useState } from "react";
import { useSize } from "../../shared/view/WorkCanvas";
import { useLaidBench, useOpenBench } from "./openBench";
import { SheetCanvas } from "./SheetCanvas";
import { cellOf, partOf, type Cell } from "./sheetParts";
import { TrialCell } from "./TrialCell";
import { TrialHeader } from "./TrialHeader";

const SHEET: [number, number] = [100, 70];

/** The eight scenes side by side; one canvas paints them all, for a canvas each costs a layer each at every step of a drag. */
export function TrialSheet() {
  const { motifs, ground } = useOpenBench();
  const { trials, beside, header } = useLaidBench();
  const { night, glass } = ground;
  const [width, height] = header?.trial_box ?? SHEET;
  const [sheet, size] = useSize<HTMLUListElement>();
  const [cells, setCells] = useState<Cell[]>([]);
  const count = trials.length;
  useLayoutEffect(() => {
    const found = sheet.current?.querySelectorAll<HTMLElement>("[data-pieces]") ?? [];
    const origin = sheet.current?.getBoundingClientRect();
    if (origin) setCells(Array.from(found, (element) => cellOf(element.getBoundingClientRect(), origin)));
  }, [sheet, size, count]);
  // what was kept aside has the right half of its cell
  const picture = useMemo(() => {
    const parts = cells.flatMap((cell, i) => {
      if (!trials[i]) return [];
      const other = beside.get(trials[i].key);
      const half = other ? cell.width / 2 : cell.width;
      return [trials[i], other].flatMap((scene, k) =>
        scene ? [partOf(scene, { ...cell, x: cell.x + k * half, width: half }, scene.box ?? [width, height], !k && !!other)] : [],
      );
    });
    return size.width && size.height ? { parts, night, ground: glass, size } : null;
  }, [trials, beside, width, height, cells, night, glass, size]);
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
          <SheetCanvas motifs={motifs} sheet={picture} />
        </li>
      </ul>
    </>
  );
}
