import { useRef } from "react";
import type { Edit } from "../../../shared/api/client";
import { useHandle } from "../../../shared/ui/handle";
import type { MotifEdit } from "../useMotifEdit";

/** What a mark on the motif does: from what it began at, and how far it was pulled in px, to a change. */
export interface Tool<From, Change extends Edit = Edit> {
  begin: () => From;
  /** ``fine``: not snapped, or not held to round steps. */
  at: (from: From, dx: number, dy: number, fine: boolean) => Change;
  /** What a press of an arrow key does; presses after one another under one ``key`` are one step. */
  step: (by: number, from: From) => Change;
  /** What the next press goes on from, where changes say the place, and not by how much. */
  after?: (change: Change) => From;
  key: string;
  label?: (change: Change) => string;
}

/** Shown while it is in the hand, kept when it is let go, dropped by Escape. */
export function useTool<From, Change extends Edit>(tool: Tool<From, Change>, edit: MotifEdit) {
  const ahead = useRef<From | null>(null);
  const labelled = (change: Change) => (tool.label ? { label: tool.label(change) } : {});
  return useHandle<From>({
    begin: tool.begin,
    move: (dx, dy, from, fine) => edit.show(tool.at(from, dx, dy, fine)),
    done: (dx, dy, from, fine) => {
      const change = tool.at(from, dx, dy, fine);
      edit.keep(change, labelled(change));
    },
    step: (by) => {
      const from = (edit.isKeeping() ? ahead.current : null) ?? tool.begin(); // the screen may be behind what was pressed
      const change = tool.step(by, from);
      ahead.current = tool.after?.(change) ?? null;
      edit.keep(change, { ...labelled(change), merge_key: tool.key });
    },
    leave: edit.drop,
  });
}
