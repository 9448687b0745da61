/** What the single pieces of a brush are called. */
export const NAMES: Record<string, string> = {
  start: "start piece",
  end: "end piece",
  outside_corner: "outside corner",
  inside_corner: "inside corner",
};
