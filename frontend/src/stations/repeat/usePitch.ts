import { useBench } from "./bench";
import { useLaidBench } from "./openBench";
import { pitchAtGap } from "./pitch";
import type { BenchHeader } from "./types";

/** The mean pitch that is set, mm: at the gap that is said, or as links were hung last; what is laid may be behind it. */
export function usePitch(header: BenchHeader, jointed: boolean): number {
  const { said, behind } = useLaidBench();
  const pitch = useBench((bench) => bench.pitch);
  const hung = useBench((bench) => bench.hung);
  if (!jointed) return pitchAtGap(header, said.spacing.gap_pct);
  return pitch ?? (behind ? hung : null) ?? header.pitch_mm;
}
