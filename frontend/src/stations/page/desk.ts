import { createStore } from "zustand";
import type { Line, Schemas } from "../../shared/api/client";
import type { Cure } from "../../shared/api/scenes";
import { scopedStore } from "../../shared/state/scoped";
import type { Draft, Place } from "./tools/held";
import type { Mode, PlacedFinding } from "./types";

export type Moving = Required<Schemas["MovingMessage"]>;

interface Desk {
  mode: Mode;
  chosenId: number | null;
  /** Lines that are chosen with it. */
  also: number[];
  /** How those that are chosen together would be moved. */
  moving: Moving | null;
  /** The brush that the next line is drawn with, once one has been picked. */
  brushId: number | null;
  draft: Draft;
  /** The cure that is tried out, and the findings as they stood before: the list must not slip from under the pointer. */
  cure: { line_id: number; change: Cure["change"] } | null;
  held: PlacedFinding[] | null;
  finding: number | null;
  /** A place on the page to look at. */
  spot: Place | null;
  /** Whether the ready lines are shown to choose from. */
  ready: boolean;
  setMode: (mode: Mode) => void;
  showReady: (ready: boolean) => void;
  choose: (id: number | null) => void;
  /** Choose a line with those that are chosen, or let it go. */
  chooseToo: (id: number) => void;
  chooseAll: (ids: number[]) => void;
  setMoving: (moving: Moving | null) => void;
  setBrush: (id: number) => void;
  setDraft: (draft: Draft) => void;
  /** Whether points set next, or typed, are pointed. */
  pointed: boolean;
  setPointed: (pointed: boolean) => void;
  lookAt: (spot: Place | null, finding?: number) => void;
  tryOut: (cure: Cure | null, of: number, findings: PlacedFinding[]) => void;
  /** After a cure is taken nothing is tried out or looked at. */
  settle: () => void;
}

/** A list of lines with one more, or without it where it is there. */
const toggled = (ids: (number | null)[], id: number): number[] => {
  const known = ids.filter((each) => each !== null);
  return known.includes(id) ? known.filter((each) => each !== id) : [...known, id];
};

const chosenOf = ([chosenId = null, ...also]: (number | null)[]) => ({ chosenId, also: also.filter((id) => id !== null) });

const NOTHING = { cure: null, held: null, finding: null, spot: null };

/** What is chosen, dragged and shown at the open page. */
export const newDesk = (lines: Line[]) =>
  createStore<Desk>()((set) => ({
    ...NOTHING,
    mode: null,
    chosenId: lines.findLast((line) => line.visible)?.id ?? null,
    also: [],
    moving: null,
    brushId: null,
    draft: null,
    pointed: false,
    setPointed: (pointed) => set({ pointed }),
    ready: false,
    showReady: (ready) => set({ ready }),
    setMode: (mode) => set({ mode }),
    choose: (chosenId) => set({ chosenId, also: [], finding: null, spot: null }),
    chooseToo: (id) =>
      set(({ chosenId, also }) => ({ ...chosenOf(toggled([chosenId, ...also], id)), finding: null, spot: null })),
    chooseAll: (ids) => set({ ...chosenOf(ids), finding: null, spot: null }),
    setMoving: (moving) => set({ moving }),
    setBrush: (brushId) => set({ brushId }),
    setDraft: (draft) => set({ draft }),
    lookAt: (spot, finding) => set(finding === undefined ? { spot } : { spot, finding }),
    tryOut: (cure, of, findings) =>
      set(cure ? { cure: { line_id: findings[of].lineId, change: cure.change }, held: findings } : { cure: null, held: null }),
    settle: () => set(NOTHING),
  }));

export const [DeskProvider, useDesk] = scopedStore("the desk", newDesk);
