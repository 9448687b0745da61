const PINNED = "sewn-garland pinned lines";

export const MOST_PINNED = 2;

/** The lines pinned among the trial lines, kept in this browser. */
export const keptPins = (): number[] => (JSON.parse(localStorage.getItem(PINNED) ?? "[]") as number[]).slice(0, MOST_PINNED);

export const keepPins = (lines: number[]): void => localStorage.setItem(PINNED, JSON.stringify(lines));
