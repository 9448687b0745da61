import { useLaidPage } from "./laidPage";

const LEAST_PX = 10; // a hand comes no nearer by itself

/** How near its start (mm) a line that is drawn by hand closes: a pitch of the brush it is drawn with, or what a hand can reach. */
export function useClosing(scale: number): number {
  const { brushId, swatches } = useLaidPage();
  const pitch = (brushId !== null && swatches(brushId)?.scene.wished_pitch_mm) || 0;
  return Math.max(pitch, LEAST_PX / scale);
}
