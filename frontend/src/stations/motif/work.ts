import { createStore } from "zustand";
import type { Motif, MotifBench } from "../../shared/api/client";
import { scopedStore } from "../../shared/state/scoped";
import type { CornerRole } from "./roles";
import type { Tab } from "./types";
import { ownParts } from "./view";

interface Draft {
  /** The version of the motif that it changes. */
  of: number;
  bench: MotifBench;
  /** Where its origin lies in the kept motif, mm: a frame that is pulled moves it. */
  origin: [number, number];
}

interface Work {
  tab: Tab;
  /** The chosen parts by their places among the motif's own: what is derived from them comes and goes. */
  places: number[];
  /** The chosen points, of this outline. */
  nodes: number[];
  contour: number;
  night: boolean;
  /** The corner that is looked at, of a brush that the motif is a piece of. */
  corner: { brush: number; role: CornerRole } | null;
  /** The motif as a change in the hand would make it, and why it cannot. */
  draft: Draft | null;
  refusal: string | null;
  open: (tab: Tab) => void;
  choose: (places: number[]) => void;
  chooseNodes: (nodes: number[], contour?: number) => void;
  turnNight: () => void;
  turnTo: (corner: Work["corner"]) => void;
  show: (draft: Draft) => void;
  refuse: (refusal: string | null) => void;
  drop: () => void;
}

/** What is chosen, dragged and shown of the open motif. */
export const newWork = (motif: Motif) =>
  createStore<Work>()((set) => ({
    tab: "cut",
    places: ownParts(motif).length === 1 ? [0] : [], // the only part needs no choosing
    nodes: [],
    contour: 0,
    night: false,
    corner: null,
    draft: null,
    refusal: null,
    open: (tab) => set(({ places }) => ({ tab, places: allowed(tab, places) })),
    choose: (places) => set(({ tab }) => ({ places: allowed(tab, places), nodes: [], contour: 0 })),
    chooseNodes: (nodes, contour) => set(contour === undefined ? { nodes } : { nodes, contour }),
    turnNight: () => set(({ night }) => ({ night: !night })),
    turnTo: (corner) => set({ corner }),
    show: (draft) => set({ draft, refusal: null }),
    refuse: (refusal) => set({ refusal }),
    drop: () => set({ draft: null, refusal: null }),
  }));

export const [WorkProvider, useWork] = scopedStore("the work", newWork);

/** Points are those of one part. */
const allowed = (tab: Tab, places: number[]): number[] => (tab === "points" ? places.slice(0, 1) : places);
