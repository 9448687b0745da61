import { useState } from "react";
import { MOST_PINNED } from "./PinMenu";

const PINNED = "sewn-garland pinned lines";

/** The lines pinned among the trial lines, kept in this browser. */
export function usePinned(): [number[], (lines: number[]) => void] {
  const [pinned, setPinned] = useState<number[]>(() =>
    (JSON.parse(localStorage.getItem(PINNED) ?? "[]") as number[]).slice(0, MOST_PINNED),
  );
  const keep = (lines: number[]): void => {
    localStorage.setItem(PINNED, JSON.stringify(lines));
    setPinned(lines);
  };
  return [pinned, keep];
}
