import { useHandle } from "../../shared/ui/handle";
import { useOpenBench } from "./openBench";
import { gapAtPitch } from "./pitch";
import type { BenchHeader } from "./types";
import { usePitch } from "./usePitch";

const STEP_MM = 0.1;

/**
 * A handle on the pitch: it sets the gap of pieces, and moves the joints of links. Keys step on from what is set, be it laid
 * yet or not.
 */
export function usePitchHandle(header: BenchHeader, scale: number, jointed: boolean) {
  const { hands: edit } = useOpenBench();
  const standing = usePitch(header, jointed);
  const setPitch = (pitch: number, then: (gap: number) => void): void => {
    then(Number(gapAtPitch(header, pitch).toFixed(2)));
  };
  const least = 0.02 * header.pitch_mm;
  const hang = (mm: number): number => Number(Math.max(least, mm).toFixed(3));
  const gapPitch = useHandle({
    move: (dx, _dy, at) =>
      setPitch(Math.max(0.01 * header.piece_mm, at.pitch + dx / scale / 2), (gap_pct) => edit.drag({ spacing: { gap_pct } })),
    done: (dx, _dy, at) =>
      setPitch(at.pitch + dx / scale / 2, (gap_pct) => edit.set({ spacing: { gap_pct } }, `gap to ${gap_pct} %`)),
    begin: () => ({ pitch: header.pitch_mm, size: 0, turn: 0 }),
    step: (by) => setPitch(standing + by * STEP_MM, (gap_pct) => edit.set({ spacing: { gap_pct } }, `gap to ${gap_pct} %`)),
    leave: edit.release,
  });
  const jointPitch = useHandle({
    begin: () => ({ pitch: header.pitch_mm }),
    move: (dx, _dy, at) => edit.dragPitch(hang(at.pitch + dx / scale / 2)),
    done: (dx, _dy, at) => edit.setPitch(hang(at.pitch + dx / scale / 2)),
    step: (by) => edit.setPitch(hang(standing + by * STEP_MM)),
    leave: edit.release,
  });
  return jointed ? jointPitch : gapPitch;
}
