import { createStore } from "zustand";
import type { Original, Preparation } from "../../shared/api/client";
import { scopedStore } from "../../shared/state/scoped";
import type { Drawing } from "./types";

/** What a new motif begins with. */
export type Beginning = "starters" | "tray" | "pick-up" | null;

interface Beginnings {
  beginning: Beginning;
  /** The picture that a motif is made of. */
  original: Original | null;
  /** What is done to it at first, and the motif that was made of it so. */
  kept: KeptPicture | null;
  /** The file that is read at the moment. */
  reading: string | null;
  drawing: Drawing | null;
  /** Open a way to begin, or close it when it is open. */
  begin: (which: Beginning) => void;
  take: (original: Original, kept?: KeptPicture) => void;
  read: (file: string | null) => void;
  draw: (drawing: Drawing | null) => void;
  done: () => void;
}

/** A picture that a motif was made of before, to be opened again. */
interface KeptPicture {
  motif: { id: number; name: string; version: number };
  preparation: Preparation;
}

/** How the next motif begins. */
export const [BeginningProvider, useBeginning] = scopedStore("a beginning", () =>
  createStore<Beginnings>()((set) => ({
    beginning: null,
    original: null,
    kept: null,
    reading: null,
    drawing: null,
    begin: (which) => set((now) => ({ original: null, beginning: now.beginning === which ? null : which })),
    take: (original, kept) => set({ original, kept: kept ?? null, beginning: null }),
    read: (reading) => set({ reading }),
    draw: (drawing) => set({ drawing }),
    done: () => set({ beginning: null, original: null }),
  })),
);
