import type { BrushEdit } from "./useBrushEdit";

/**
 * Compare props by what they show: while a drag only asks, nothing that is on screen changes, so
 * nothing is rendered or painted until the answer is there. The edit's hands change with the brush.
 */
export function sameShown<Props extends { edit: BrushEdit }>(keys: (keyof Props)[]) {
  return (before: Props, after: Props): boolean =>
    before.edit.kept === after.edit.kept && keys.every((key) => before[key] === after[key]);
}
