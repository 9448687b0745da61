import type { Edit } from "../../shared/api/client";
import { useOpenMotif } from "./openMotif";

type Change = Omit<Extract<Edit, { op: "paint" }>, "op" | "parts">;

/** Paint the chosen parts: shown while it is in the hand, kept when it is let go. */
export function usePaint() {
  const { edit, parts } = useOpenMotif();
  const paint = (more: Change): Edit => ({ op: "paint", parts, ...more });
  return {
    show: (more: Change): void => edit.show(paint(more)),
    keep: (more: Change, label: string): void => edit.keep(paint(more), { label, merge_key: label }),
    drop: edit.drop,
  };
}
