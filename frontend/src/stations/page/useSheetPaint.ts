import { useCallback, useMemo } from "react";
import type { Line, Motif, Page } from "../../shared/api/client";
import type { Finding, Scene } from "../../shared/api/scenes";
import { blends, laidOf, paintPieces } from "../../shared/view/painter";
import type { Paint, Size, Under } from "../../shared/view/layers";
import { paintRings, strokeHairline } from "../../shared/view/marks";
import type { Ctx, View } from "../../shared/view/view";
import { useDesk } from "./desk";
import { idOf, paintAsItWas, useMoving } from "./moving";
import { paintRuler, paintSheet } from "./sheetView";

const HEAVY = 4000; // pieces; chosen: fewer are painted anew in a frame
const HURRIED = 1500; // pieces of a line that is reshaped; chosen: so many are painted whole between two frames

export interface Shown {
  page: Page;
  scenes: Scene[];
  motifOf: (scene: Scene) => Motif[];
  chosen: Line | null;
  together: Line[];
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
export function useSheetPaint(
  { page, scenes, motifOf, chosen, together, rings, spot }: Shown,
  view: View,
  shift: Shift | null,
): Painting {
  const moving = useMoving(view) && scenes.reduce((sum, scene) => sum + (scene.pieces ?? 0), 0) > HEAVY;
  const inHand = useDesk((desk) => desk.draft !== null || desk.moving !== null);
  const active = useMemo(
    () => (together.length ? together.map(({ id }) => id) : [shift?.id ?? chosen?.id ?? null]),
    [together, shift?.id, chosen?.id],
  );
  const { below, own, above } = useMemo(() => parted(scenes, active), [scenes, active]);

  const paintScenes = useCallback(
    (ctx: Ctx, some: Scene[], area: Size, ratio: number): void => {
      for (const scene of some) {
        const by = shift && shift.id === scene.line_id ? shift.by : [0, 0];
        const moved = { ...view, x: view.x + by[0] * view.scale, y: view.y + by[1] * view.scale };
        const held = inHand && (scene.key === "draft" || active.includes(scene.line_id ?? null));
        const hurry = !held ? "none" : (scene.pieces ?? 0) > HURRIED ? "all" : "soft";
        paintPieces(ctx, laidOf(motifOf(scene), scene), moved, ratio, area, hurry);
        if (chosen && active.includes(scene.line_id ?? null)) strokeHairline(ctx, scene.path ?? "", moved, ratio, "#2c4a84", 1.2);
        if (scene.key === "draft") strokeHairline(ctx, scene.path ?? "", moved, ratio, "#a63a2f", 1);
      }
    },
    [motifOf, view, shift, chosen, active, inHand],
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

/**
 * The scenes below the one at work, itself, and those above it; a line that is being drawn is the one at work. Of several at work what
 * lies above the first of them goes with them.
 */
function parted(scenes: Scene[], active: (number | null)[]): { below: Scene[]; own: Scene[]; above: Scene[] } {
  const drawn = scenes.filter((scene) => scene.key === "draft");
  const kept = scenes.filter((scene) => scene.key !== "draft");
  const at = drawn.length ? -1 : kept.findIndex((scene) => active.includes(scene.line_id ?? null));
  if (at < 0) return { below: kept, own: drawn, above: [] };
  const above = kept.slice(at + 1);
  if (active.length > 1) return { below: kept.slice(0, at), own: kept.slice(at), above: [] };
  // what blends with the line at work cannot be a picture of its own
  if (above.some(blends)) return { below: kept.slice(0, at), own: kept.slice(at), above: [] };
  return { below: kept.slice(0, at), own: [kept[at]], above };
}
