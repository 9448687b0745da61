import type { Ctx } from "../../shared/view/view";
import { LEFT } from "./flatSizes";

export const RULE_FONT = '10.5px "Hanken Grotesk Variable"';

/** Millimetre rule along the top, with figures at round steps. */
export function paintRule(ctx: Ctx, width: number, scale: number, colour: string): void {
  const step = [0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500].find((mm) => mm * scale >= 34) ?? 1000;
  ctx.strokeStyle = colour;
  ctx.fillStyle = colour;
  ctx.lineWidth = 1;
  ctx.font = RULE_FONT;
  ctx.beginPath();
  ctx.moveTo(LEFT, 36.5);
  ctx.lineTo(width, 36.5);
  for (let i = 0; LEFT + (i * step * scale) / 5 < width - 8; i++) {
    const x = Math.round(LEFT + (i * step * scale) / 5) + 0.5;
    ctx.moveTo(x, 36);
    ctx.lineTo(x, i % 5 ? 31 : 24);
    if (i % 5 === 0) ctx.fillText(String(Number(((i * step) / 5).toFixed(2))) + (i === 0 ? " mm" : ""), x + 3, 24);
  }
  ctx.stroke();
}
