import { createStore } from "zustand";
import type { Original } from "../../shared/api/client";
import { scopedStore } from "../../shared/state/scoped";
import type { Drawing } from "./types";

/** What a new motif begins with. */
export type Beginning = "starters" | "tray" | "pick-up" | null;

interface Beginnings {
  beginning: Beginning;
  /** The picture that a motif is made of. */
  original: Original | null;
  drawing: Drawing | null;
  /** Open a way to begin, or close it when it is open. */
  begin: (which: Beginning) => void;
  take: (original: Original) => void;
  draw: (drawing: Drawing | null) => void;
  done: () => void;
}

/** How the next motif begins. */
export const [BeginningProvider, useBeginning] = scopedStore("a beginning", () =>
  createStore<Beginnings>()((set) => ({
    beginning: null,
    original: null,
    drawing: null,
    begin: (which) => set((now) => ({ original: null, beginning: now.beginning === which ? null : which })),
    take: (original) => set({ original, beginning: null }),
    draw: (drawing) => set({ drawing }),
    done: () => set({ beginning: null, original: null }),
  })),
);
