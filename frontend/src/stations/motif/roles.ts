/** The roles that a motif can have in a brush. */
export const ROLES = [
  { role: "repeat", name: "variant" },
  { role: "start", name: "start piece" },
  { role: "end", name: "end piece" },
  { role: "outside_corner", name: "outside corner" },
  { role: "inside_corner", name: "inside corner" },
] as const;

export const CORNERS = ["outside_corner", "inside_corner"] as const;
export type CornerRole = (typeof CORNERS)[number];
/** A role of a single piece that can be made of the repeat. */
export type Role = "start" | "end" | CornerRole;

export const isCorner = (role: Role): role is CornerRole => role.endsWith("corner");
