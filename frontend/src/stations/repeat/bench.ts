import { createStore } from "zustand";
import type { Settings } from "../../shared/api/client";
import { scopedStore } from "../../shared/state/scoped";
import { withChange, type SettingsChange } from "../../shared/ui/settings";
import { keptPins, keepPins } from "./pins";
import type { SheetPoint } from "./TrialPoints";
import type { Question } from "./types";

interface Bench {
  question: Question;
  /** The trial line that is seen large. */
  large: string | null;
  /** Points of standing trial lines that were moved. */
  shaped: Record<string, SheetPoint[]>;
  /** Lines of one's own pages among the trial lines. */
  pinned: number[];
  /** Settings kept aside, laid on the same lines. */
  aside: Settings | null;
  /** How many round steps wider than usual the trial sheets are. */
  step: number;
  comparing: boolean;
  /** The settings while a drag goes on, or until what was set is kept; while a cure is tried; before the last change. */
  draft: Settings | null;
  inHand: boolean;
  preview: Settings | null;
  before: Settings | null;
  /** The pitch of a jointed brush while its tape is held, or until what was set is kept, mm. */
  pitch: number | null;
  /** The pitch that was set last, until it is laid as kept, mm. */
  hung: number | null;
  /** Changes on their way to the server. */
  waiting: number;
  ask: (question: Question) => void;
  open: (trial: string | null) => void;
  shape: (trial: string, points: SheetPoint[] | null) => void;
  pin: (lines: number[]) => void;
  keepAside: (settings: Settings | null) => void;
  stepTo: (step: number) => void;
  compare: (comparing: boolean) => void;
  show: (preview: Settings | null) => void;
  drag: (kept: Settings, change: SettingsChange) => void;
  hang: (pitch: number) => void;
  release: () => void;
  send: (kept: Settings, change: SettingsChange) => void;
  sendPitch: (pitch: number) => void;
  arrive: () => void;
  /** What is kept is laid. */
  stand: () => void;
}

/** What is chosen, dragged and shown of the open brush. */
export const newBench = () =>
  createStore<Bench>()((set) => ({
    question: "often",
    large: null,
    shaped: {},
    pinned: keptPins(),
    aside: null,
    step: 0,
    comparing: false,
    draft: null,
    inHand: false,
    preview: null,
    before: null,
    pitch: null,
    hung: null,
    waiting: 0,
    ask: (question) => set({ question }),
    open: (large) => set({ large }),
    shape: (trial, points) => set(({ shaped }) => ({ shaped: withPoints(shaped, trial, points) })),
    pin: (pinned) => {
      keepPins(pinned);
      set({ pinned });
    },
    keepAside: (aside) => set({ aside }),
    stepTo: (step) => set({ step }),
    compare: (comparing) => set({ comparing }),
    show: (preview) => set({ preview }),
    drag: (kept, change) => set((now) => ({ inHand: true, draft: withChange(drawnUpon(now, kept), change) })),
    hang: (pitch) => set({ pitch, inHand: true }),
    release: () => set({ inHand: false, draft: null, pitch: null }),
    send: (kept, change) =>
      set((now) => ({
        before: kept,
        preview: null,
        inHand: false,
        draft: withChange(drawnUpon(now, kept), change),
        waiting: now.waiting + 1,
      })),
    sendPitch: (pitch) => set(({ waiting }) => ({ pitch, hung: pitch, inHand: false, waiting: waiting + 1 })),
    stand: () => set({ hung: null }),
    arrive: () =>
      set(({ waiting, draft, pitch }) => ({
        waiting: waiting - 1,
        ...(waiting > 1 ? { draft, pitch } : { draft: null, pitch: null }),
      })),
  }));

export const [BenchProvider, useBench] = scopedStore("the bench", newBench);

/** What a change goes on from: what is on its way to be kept, else what is kept. */
const drawnUpon = ({ waiting, draft }: Bench, kept: Settings): Settings => (waiting && draft) || kept;

/** Moved points of trial lines with one line's set, or put back as it stands. */
function withPoints(shaped: Bench["shaped"], trial: string, points: SheetPoint[] | null): Bench["shaped"] {
  const next = { ...shaped };
  if (points) next[trial] = points;
  else delete next[trial];
  return next;
}
