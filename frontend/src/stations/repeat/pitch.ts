import type { BenchHeader } from "./types";

const MOST_GAP = 100_000; // %

/** What a gap of one per cent comes to, mm: a hundredth of the pieces' mean length. */
export const mmOfOnePercent = ({ pitch_mm, gap_mm, piece_mm }: BenchHeader): number => pitch_mm / (1 + gap_mm / piece_mm) / 100;

/** The mean pitch at the gap that is set, mm: what is laid may be behind it. */
export const pitchAtGap = (header: BenchHeader, gap_pct: number): number => (100 + gap_pct) * mmOfOnePercent(header);

/** The gap, in per cent of each piece, at which pieces have a mean pitch of so many mm. */
export function gapAtPitch(header: BenchHeader, pitch: number): number {
  const gap = pitch / mmOfOnePercent(header) - 100;
  return Number(Math.max(-99, Math.min(MOST_GAP, gap)).toFixed(3));
}
