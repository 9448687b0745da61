/** The roles that a motif can have in a brush. */
export const ROLES = [
  { role: "repeat", name: "variant" },
  { role: "start", name: "start piece" },
  { role: "end", name: "end piece" },
  { role: "outside_corner", name: "outside corner" },
  { role: "inside_corner", name: "inside corner" },
] as const;
