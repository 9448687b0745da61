import { memo, useLayoutEffect, useMemo, useState, type ReactNode } from "react";
import type { Motif } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { Caution, Sound } from "../../shared/ui/Findings";
import { fitView } from "../../shared/view/view";
import { useSize } from "../../shared/view/WorkCanvas";
import { SheetCanvas } from "./SheetCanvas";
import type { SheetPart } from "./sheetPainter";
import { MARGIN_PX } from "./TrialScene";
import type { GroundState } from "./useGround";

interface Props {
  trials: Scene[];
  /** What is kept aside, laid on the same lines. */
  beside: Map<string, Scene>;
  motifs: Motif[];
  box: [number, number];
  ground: GroundState;
  /** What else can be done with the sheet. */
  children: ReactNode;
  onOpen: (key: string) => void;
  /** How many round steps wider than usual the sheets are: more of the brush, seen from further away. */
  step: number;
  onStep: (step: number) => void;
}

export const TrialSheet = memo(TrialSheetNow);

interface Cell {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** What is painted of a scene in its part of the sheet. */
function partOf(scene: Scene, part: Cell, box: [number, number], thread: boolean): SheetPart {
  const { path, findings, matrices, motif, drawn, outline, contours, cut, bisectors, meshes } = scene;
  const view = fitView(part.width, part.height, box, MARGIN_PX);
  const placed = { ...view, x: view.x + part.x, y: view.y + part.y };
  return {
    path,
    findings: findings.map(({ at }) => ({ at })),
    matrices,
    motif,
    drawn,
    outline,
    contours,
    cut,
    bisectors,
    meshes,
    view: placed,
    part,
    thread,
  };
}

const cellOf = (box: DOMRect, origin: DOMRect): Cell => ({
  x: box.x - origin.x,
  y: box.y - origin.y,
  width: box.width,
  height: box.height,
});

/** The eight scenes side by side; one canvas paints them all, for a canvas each costs a layer each at every step of a drag. */
function TrialSheetNow({ trials, beside, motifs, box, ground, children, onOpen, step, onStep }: Props) {
  const { night } = ground;
  const faulty = trials.filter((t) => t.findings.length || t.refused).length;
  const [sheet, size] = useSize<HTMLUListElement>();
  const [cells, setCells] = useState<Cell[]>([]);
  const count = trials.length;
  useLayoutEffect(() => {
    const found = sheet.current?.querySelectorAll<HTMLElement>("[data-pieces]") ?? [];
    const origin = sheet.current?.getBoundingClientRect();
    if (origin) setCells(Array.from(found, (element) => cellOf(element.getBoundingClientRect(), origin)));
  }, [sheet, size, count]);
  const [width, height] = box;
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
    return size.width && size.height ? { parts, night, size } : null;
  }, [trials, beside, width, height, cells, night, size]);
  return (
    <>
      <header className="mb-1.5 flex items-baseline gap-3">
        <h2 className="text-[15px]">Trial lines</h2>
        <p className="text-[12.5px] text-moss">
          {beside.size
            ? "Left as it is now, right what was kept aside."
            : `${faulty ? `${faulty} of ${trials.length} have findings` : `All ${trials.length} join cleanly`}. Press one to see it large.`}
        </p>
        <span className="ml-auto flex items-baseline gap-1 text-[12.5px] text-moss">
          {children}
          <span className="ml-2">Each {box[0]} mm wide</span>
          <button className="plain-button px-1.5 py-0" disabled={step <= -2} onClick={() => onStep(step - 1)}>
            closer
          </button>
          <button className="plain-button px-1.5 py-0" disabled={step >= 8} onClick={() => onStep(step + 1)}>
            further
          </button>
        </span>
      </header>
      <ul
        ref={sheet}
        className={`relative grid min-h-0 flex-1 ${count > 8 ? "grid-cols-5" : "grid-cols-4"} grid-rows-2 gap-x-px gap-y-1`}
      >
        {trials.map((trial) => {
          const sound = !trial.findings.length && !trial.refused;
          return (
            <li key={trial.key} className="flex min-h-0 min-w-0 flex-col">
              <button
                aria-label={`${trial.name}: ${trial.refused ?? trial.verdict}`}
                className={`min-h-0 flex-1 border border-rule hover:border-loden ${night || ground.style ? ground.weave : "bg-work"}`}
                style={ground.style}
                onClick={() => onOpen(trial.key)}
              >
                <span data-testid={`trial-${trial.key}`} data-pieces={trial.pieces} className="block h-full w-full" />
              </button>
              <p
                className="flex [contain:content] items-start gap-1.5 px-1 pt-0.5 text-[12px] leading-tight"
                data-testid={`verdict-${trial.key}`}
              >
                {sound ? <Sound size={12} /> : <Caution size={12} />}
                <span className="line-clamp-2 min-h-[30px]">
                  <b>{trial.name}</b>
                  {trial.moved && ", moved"} {trial.refused ?? trial.verdict}
                  {beside.has(trial.key) && ` · aside: ${beside.get(trial.key)!.refused ?? beside.get(trial.key)!.verdict}`}
                </span>
              </p>
            </li>
          );
        })}
        <li aria-hidden className="pointer-events-none absolute inset-0">
          <SheetCanvas motifs={motifs} sheet={picture} />
        </li>
      </ul>
    </>
  );
}
