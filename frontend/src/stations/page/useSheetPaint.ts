import { useCallback, useEffect, useMemo, useState } from "react";
import type { Line, Motif, Page } from "../../shared/api/client";
import type { Finding, Scene } from "../../shared/api/scenes";
import { laidOf, paintPieces } from "../../shared/view/painter";
import type { Kept, Paint, Size, Under } from "../../shared/view/layers";
import { paintRings, strokeHairline } from "../../shared/view/marks";
import type { Ctx, View } from "../../shared/view/view";
import { paintRuler, paintSheet, RULER } from "./sheetView";

const HEAVY = 4000; // pieces; chosen: fewer are painted anew in a frame
const SETTLES_MS = 140;

export interface Shown {
  page: Page;
  scenes: Scene[];
  motifOf: (scene: Scene) => Motif[];
  chosen: Line | null;
  rings: Finding[];
  spot: [number, number] | null;
}

/** A line moved under the hand, in mm. */
export interface Shift {
  id: number;
  by: [number, number];
}

interface Painting {
  under?: Under;
  paint: Paint;
  over?: Under;
  top: Paint;
}

/**
 * How the sheet is painted: the chosen line between two kept pictures of those below and above it,
 * so that only it is painted anew while it changes. A sheet with very many pieces moves as the
 * picture that it was, and is painted sharp once the view stands still.
 */
export function useSheetPaint({ page, scenes, motifOf, chosen, rings, spot }: Shown, view: View, shift: Shift | null): Painting {
  const moving = useMoving(view) && scenes.reduce((sum, scene) => sum + (scene.pieces ?? 0), 0) > HEAVY;
  const { below, own, above } = useMemo(() => parted(scenes, shift?.id ?? chosen?.id ?? null), [scenes, shift?.id, chosen?.id]);

  const paintScenes = useCallback(
    (ctx: Ctx, some: Scene[], area: Size, ratio: number): void => {
      for (const scene of some) {
        const by = shift && shift.id === scene.line_id ? shift.by : [0, 0];
        const moved = { ...view, x: view.x + by[0] * view.scale, y: view.y + by[1] * view.scale };
        paintPieces(ctx, laidOf(motifOf(scene), scene), moved, ratio, area);
        if (chosen && scene.line_id === chosen.id) strokeHairline(ctx, scene.path ?? "", moved, ratio, "#2c4a84", 1.2);
        if (scene.key === "draft") strokeHairline(ctx, scene.path ?? "", moved, ratio, "#a63a2f", 1);
      }
    },
    [motifOf, view, shift, chosen],
  );
  const still = (some: Scene[], sheet: boolean): Under => ({
    view,
    key: [page.version, sheet, view.x, view.y, view.scale, ...some.flatMap((s) => [s, ...motifOf(s)]).map(idOf)].join(" "),
    paint: (ctx, area, ratio) => {
      if (sheet) paintSheet(ctx, page, view, ratio);
      paintScenes(ctx, some, area, ratio);
    },
  });
  const paint = useCallback<Paint>(
    (ctx, area, ratio, was) => {
      if (moving) paintSheet(ctx, page, view, ratio);
      if (moving && was?.below) paintAsItWas(ctx, was.below, view, ratio);
      paintScenes(ctx, moving && !was?.below ? scenes : own, area, ratio);
      if (moving && was?.above) paintAsItWas(ctx, was.above, view, ratio);
    },
    [moving, page, view, scenes, own, paintScenes],
  );
  const top = useCallback<Paint>(
    (ctx, area) => {
      paintRuler(ctx, area.width, page, view);
      if (!shift) paintRings(ctx, rings, view, false, null);
      if (!spot) return;
      ctx.strokeStyle = "#a63a2f";
      ctx.lineWidth = 2.5;
      ctx.beginPath();
      ctx.arc(spot[0] * view.scale + view.x, spot[1] * view.scale + view.y, 16, 0, 2 * Math.PI);
      ctx.stroke();
    },
    [page, rings, view, shift, spot],
  );
  if (moving) return { paint, top };
  return { under: still(below, true), paint, over: above.length ? still(above, false) : undefined, top };
}

/** The scenes below the one at work, itself, and those above it; a line that is being drawn is the one at work. */
function parted(scenes: Scene[], active: number | null): { below: Scene[]; own: Scene[]; above: Scene[] } {
  const drawn = scenes.filter((scene) => scene.key === "draft");
  const kept = scenes.filter((scene) => scene.key !== "draft");
  const at = drawn.length ? -1 : kept.findIndex((scene) => scene.line_id === active);
  if (at < 0) return { below: kept, own: drawn, above: [] };
  return { below: kept.slice(0, at), own: [kept[at]], above: kept.slice(at + 1) };
}

/** Whether the view has just changed and may change again. */
function useMoving(view: View): boolean {
  const [settled, setSettled] = useState(view);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(view), SETTLES_MS);
    return () => clearTimeout(timer);
  }, [view]);
  return settled !== view;
}

/** Paint the picture of another view where it lies in this one, without the rule above it. */
function paintAsItWas(ctx: Ctx, { canvas: was, view: from }: Kept, view: View, ratio: number): void {
  if (!from) return;
  const by = view.scale / from.scale;
  const top = RULER * ratio;
  ctx.save();
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  const x = (view.x - from.x * by) * ratio;
  const y = (view.y - from.y * by) * ratio;
  ctx.drawImage(was, 0, top, was.width, was.height - top, x, y + top * by, was.width * by, (was.height - top) * by);
  ctx.restore();
}

const ids = new WeakMap<object, number>();
let lastId = 0;

/** A number for an object, the same as long as it is the same one. */
function idOf(of: object): number {
  const known = ids.get(of) ?? ++lastId;
  ids.set(of, known);
  return known;
}
