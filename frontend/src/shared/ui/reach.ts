import type { Workshop } from "../api/client";

/** How far a change to a brush reaches, in words. */
export function reachOf(workshop: Pick<Workshop, "uses">, brushId: number | undefined): string {
  const { lines = 0, pages = 0 } = workshop.uses.find((use) => use.brush_id === brushId) ?? {};
  if (!lines) return "changes this brush, which lies on no line";
  if (lines === 1) return "changes this brush: one line";
  return `changes this brush: ${lines} lines${pages > 1 ? ` on ${pages} pages` : ""}`;
}
