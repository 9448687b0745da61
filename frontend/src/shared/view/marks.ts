import type { Finding } from "../api/scenes";
import type { Ctx, View } from "./view";

/** Stroke path data given in mm as a hairline of `px` pixels. */
export function strokeHairline(
  ctx: Ctx,
  d: string,
  view: View,
  ratio: number,
  colour: string,
  px: number,
  dash: number[] = [],
): void {
  const s = view.scale * ratio;
  ctx.setTransform(s, 0, 0, s, view.x * ratio, view.y * ratio);
  ctx.strokeStyle = colour;
  ctx.lineWidth = px / view.scale;
  ctx.setLineDash(dash.map((v) => v / view.scale));
  ctx.lineCap = "butt";
  ctx.lineJoin = "round";
  ctx.stroke(new Path2D(d));
  ctx.setLineDash([]);
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
}

const RING_PX = 9;

/** Ring the findings in weld yellow, one ring where several lie together; the chosen one larger. */
export function paintRings(ctx: Ctx, findings: Pick<Finding, "at">[], view: View, night: boolean, chosen: number | null): void {
  const places = findings.map((f) => [f.at[0] * view.scale + view.x, f.at[1] * view.scale + view.y]);
  const drawn: number[][] = [];
  ctx.strokeStyle = night ? "#e8bd4d" : "#c9971c";
  ctx.lineWidth = 1.6;
  for (const [x, y] of places) {
    if (drawn.some((d) => Math.hypot(d[0] - x, d[1] - y) < 1.6 * RING_PX)) continue;
    drawn.push([x, y]);
    ctx.beginPath();
    ctx.arc(x, y, RING_PX, 0, 2 * Math.PI);
    ctx.stroke();
  }
  if (chosen === null || !places[chosen]) return;
  ctx.lineWidth = 3;
  ctx.beginPath();
  ctx.arc(places[chosen][0], places[chosen][1], RING_PX + 6, 0, 2 * Math.PI);
  ctx.stroke();
}
