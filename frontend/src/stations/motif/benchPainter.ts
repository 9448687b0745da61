import { type MotifBench } from "../../shared/api/client";
import { stampOf, stampShapes } from "../../shared/view/stamp";
import type { Ctx, View } from "../../shared/view/view";

const PALE = 0.26;

export function paintBench(
  ctx: Ctx,
  area: { width: number; height: number },
  ratio: number,
  bench: MotifBench,
  view: View,
): void {
  const { motif, pitch_mm } = bench;
  const stamp = stampOf(motif);
  const [from, to] = motif.cuts_mm ?? [0, motif.width_mm];
  const cut = motif.cuts_mm !== null;
  const put = (shift: number, alpha: number, clip: [number, number] | null): void => {
    ctx.save();
    if (clip) {
      ctx.beginPath();
      ctx.rect(view.x + (clip[0] + shift) * view.scale, 0, (clip[1] - clip[0]) * view.scale, area.height);
      ctx.clip();
    }
    ctx.globalAlpha = alpha;
    const s = view.scale * ratio;
    ctx.setTransform(
      s,
      0,
      0,
      s,
      (view.x + (motif.width_mm / 2 + shift) * view.scale) * ratio,
      (view.y + motif.base_line_mm * view.scale) * ratio,
    );
    stampShapes(ctx, stamp);
    ctx.restore();
  };
  const reach = Math.ceil(area.width / view.scale / pitch_mm / 2) + 1;
  const many = Math.min(reach, 6);
  if (!cut) for (let k = -many; k <= many; k++) if (k) put(k * pitch_mm, PALE, null);
  if (cut) put(0, PALE * 0.8, null);
  put(0, 1, cut ? [from, to] : null);
  if (cut) paintStrip(ctx, area, ratio, bench);
}

const STRIP_PX = 40;

/** What lies between the cuts, repeated small along the foot of the bench. */
function paintStrip(ctx: Ctx, area: { width: number; height: number }, ratio: number, bench: MotifBench): void {
  const { motif, pitch_mm } = bench;
  const from = motif.cuts_mm![0];
  const scale = Math.min(STRIP_PX / motif.height_mm, area.width / (3 * pitch_mm));
  const top = area.height - 36 - motif.height_mm * scale;
  for (let k = 0; k * pitch_mm * scale < area.width; k++) {
    ctx.save();
    ctx.beginPath();
    ctx.rect(k * pitch_mm * scale, top, pitch_mm * scale, motif.height_mm * scale);
    ctx.clip();
    const s = scale * ratio;
    ctx.setTransform(s, 0, 0, s, (k * pitch_mm - from + motif.width_mm / 2) * s, (top + motif.base_line_mm * scale) * ratio);
    stampShapes(ctx, stampOf(motif));
    ctx.restore();
  }
}
