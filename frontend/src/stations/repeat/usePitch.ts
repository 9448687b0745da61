import { useLaidBench } from "./openBench";
import { pitchAtGap } from "./pitch";
import type { BenchHeader } from "./types";

/** The mean pitch that is set, mm: at the gap that is said, or as links were hung last; what is laid may be behind it. */
export function usePitch(header: BenchHeader, jointed: boolean): number {
  const { said, hung } = useLaidBench();
  return jointed ? (hung ?? header.pitch_mm) : pitchAtGap(header, said.spacing.gap_pct);
}
