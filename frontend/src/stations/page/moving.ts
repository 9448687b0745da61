import { useEffect, useState } from "react";
import type { Kept } from "../../shared/view/layers";
import type { Ctx, View } from "../../shared/view/view";
import { RULER } from "./sheetView";

const SETTLES_MS = 140;

/** Whether the view has just changed and may change again. */
export function useMoving(view: View): boolean {
  const [settled, setSettled] = useState(view);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(view), SETTLES_MS);
    return () => clearTimeout(timer);
  }, [view]);
  return settled !== view;
}

/** Paint the picture of another view where it lies in this one, without the rule above it. */
export function paintAsItWas(ctx: Ctx, { canvas: was, view: from }: Kept, view: View, ratio: number): void {
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
export function idOf(of: object): number {
  const known = ids.get(of) ?? ++lastId;
  ids.set(of, known);
  return known;
}
