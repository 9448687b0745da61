import type { Motif, MotifBench, Workshop } from "../../shared/api/client";
import { provided } from "../../shared/state/scoped";
import type { MotifEdit } from "./useMotifEdit";
import type { ChooseParts } from "./view";

/** The open motif as it is kept, and as the change in the hand would make it. */
export interface OpenMotif {
  workshop: Workshop;
  motif: Motif;
  bench: MotifBench;
  edit: MotifEdit;
  /** The chosen parts, by their places among all its shapes. */
  parts: number[];
  choose: ChooseParts;
}

export const [OpenMotifContext, useOpenMotif] = provided<OpenMotif>("the open motif");
