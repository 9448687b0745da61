import type { Brush, Motif, Settings, Workshop } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { provided } from "../../shared/state/scoped";
import type { BenchHeader } from "./types";
import type { BrushHands } from "./useBrushHands";
import type { GroundState } from "./useGround";

/** The open brush as it is kept, and the hands that change it. */
export interface OpenBench {
  brush: Brush;
  /** Of all its roles, in the order in which laid pieces number them; `repeats` are those of the repeat. */
  motifs: Motif[];
  repeats: Motif[];
  workshop: Workshop;
  hands: BrushHands;
  ground: GroundState;
}

/** The open brush as it is laid. It stays the same object until something else is to be shown. */
export interface LaidBench {
  header: BenchHeader | undefined;
  flat: Scene | undefined;
  trials: Scene[];
  /** What is kept aside, laid on the same lines. */
  beside: Map<string, Scene>;
  /** Whether the cures of the findings are there, or still worked out. */
  cured: boolean;
  refusal: string | null;
  /** The pitch at which links were hung last, until that is laid, mm; in the hand it shows with its picture. */
  hung: number | null;
  /** The settings that the picture shows, and those that the words say: keys step on from what they say. */
  shown: Settings;
  said: Settings;
  /** Px a mm of the flat run, and its band. */
  scale: number;
  size: { width: number; height: number };
  /** The pinned lines that are there. */
  present: number[];
}

export const [OpenBenchContext, useOpenBench] = provided<OpenBench>("the open brush");
export const [LaidBenchContext, useLaidBench] = provided<LaidBench>("the laid brush");

/** A brush's pieces as they are asked to be laid. */
export const draftOf = ({ pieces: { repeat, start, end, outside_corner, inside_corner } }: Brush) => ({
  motif_id: repeat[0],
  variants: repeat.slice(1),
  others: { start, end, outside_corner, inside_corner },
});

/** The settings as the words say them, the hands that change them, and fields bound to one of them. */
export function useSaid() {
  const { said: settings } = useLaidBench();
  const { hands: edit } = useOpenBench();
  /** Bind a number field to one setting: dragged as a draft, kept when let go. */
  const bound = (section: Section, key: string, words: string, unit: string) => ({
    value: (settings[section] as unknown as Record<string, number>)[key],
    unit,
    limitsOf: `${section}.${key}`,
    onDrag: (next: number) => edit.drag({ [section]: { [key]: next } }),
    onSet: (next: number) => edit.set({ [section]: { [key]: next } }, `${words} to ${next} ${unit}`),
    onLeave: edit.release,
  });
  return { settings, edit, bound };
}

export type Section = "travel" | "spacing" | "ends" | "variants" | "hand" | "joins" | "ink" | "looseness";
