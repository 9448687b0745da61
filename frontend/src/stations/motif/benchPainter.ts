import { type Motif, type MotifBench, type Schemas } from "../../shared/api/client";
import { asGroup, WHOLE } from "../../shared/view/cover";
import { laidArtwork, stampOf, stampShapes, type Pass } from "../../shared/view/stamp";
import type { Ctx, View } from "../../shared/view/view";

const PALE = 0.26;

export function paintBench(
  ctx: Ctx,
  area: { width: number; height: number },
  ratio: number,
  bench: MotifBench,
  view: View,
  corner: Schemas["CornerMessage"] | null = null,
): void {
  const { motif } = bench;
  if (corner) return paintCorner(ctx, area, ratio, motif, view, corner);
  const cuts = motif.cuts_mm;
  const row = rowOf(motif, area, ratio, view);
  const pale = { share: cuts ? PALE * 0.8 : PALE, way: "normal" as const };
  const wanted = row.places.filter((k) => !cuts || k === 0);
  // the whole row as it would be painted, pale as one, for faint parts made fainter would lose their hue
  const box = { left: 0, top: 0, width: Math.ceil(area.width * ratio), height: Math.ceil(area.height * ratio) };
  const inPasses = (own: Ctx, some: number[], way: (k: number) => GlobalCompositeOperation): void =>
    row.stamp.passes.forEach((pass) =>
      some.forEach((k) => {
        own.globalCompositeOperation = way(k);
        row.put(own, k, pass);
      }),
    );
  const alone = row.stamp.passes.length === 1;
  asGroup(ctx, box, pale, (own) => inPasses(own, alone && !cuts ? wanted.filter((k) => k) : wanted, () => "source-over"));
  if (alone) within(ctx, cuts, area, ratio, view, () => row.put(ctx, 0, "all"));
  else {
    // what is seen of the motif in the midst of it
    asGroup(ctx, box, WHOLE, (own) => {
      within(own, cuts, area, ratio, view, () => inPasses(own, wanted, (k) => (k ? "destination-out" : "source-over")));
      own.globalCompositeOperation = "source-over";
    });
  }
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  if (cuts) paintStrip(ctx, area, ratio, bench);
}

/** A corner piece between the run that enters and the run that leaves, which is pale. */
function paintCorner(
  ctx: Ctx,
  area: { width: number; height: number },
  ratio: number,
  motif: Motif,
  view: View,
  { repeat, repeat_matrices }: Schemas["CornerMessage"],
): void {
  const s = view.scale * ratio;
  const [x, y] = [view.x * ratio + (motif.width_mm / 2) * s, view.y * ratio + motif.base_line_mm * s];
  const box = { left: 0, top: 0, width: Math.ceil(area.width * ratio), height: Math.ceil(area.height * ratio) };
  const stamp = stampOf(repeat);
  asGroup(ctx, box, { share: PALE, way: "normal" }, (own) => {
    for (const pass of stamp.passes)
      for (const [a, b, c, d, e, f] of repeat_matrices) {
        own.setTransform(a * s, b * s, c * s, d * s, e * s + x, f * s + y);
        stampShapes(own, stamp, 0, pass);
      }
  });
  ctx.setTransform(s, 0, 0, s, x, y);
  stampShapes(ctx, stampOf(motif));
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
}

/** A motif among its neighbours at their pitch, those that are seen. */
function rowOf(motif: Motif, area: { width: number }, ratio: number, view: View) {
  const stamp = stampOf(motif.cuts_mm ? motif : laidArtwork(motif));
  const many = Math.min(Math.ceil(area.width / view.scale / motif.pitch_mm / 2) + 1, 6);
  const s = view.scale * ratio;
  const [x, y] = [view.x * ratio + (motif.width_mm / 2) * s, view.y * ratio + motif.base_line_mm * s];
  const places = Array.from({ length: 2 * many + 1 }, (_, i) => i - many);
  const put = (ctx: Ctx, k: number, pass: Pass): void => {
    ctx.setTransform(s, 0, 0, s, x + k * motif.pitch_mm * s, y);
    stampShapes(ctx, stamp, 0, pass);
  };
  return { stamp, places, put };
}

/** Paint what lies between the cuts, where there are any. */
function within(ctx: Ctx, cuts: number[] | null, area: { height: number }, ratio: number, view: View, paint: () => void): void {
  if (!cuts) return paint();
  ctx.save();
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  ctx.beginPath();
  ctx.rect(view.x + cuts[0] * view.scale, 0, (cuts[1] - cuts[0]) * view.scale, area.height);
  ctx.clip();
  paint();
  ctx.restore();
}

const STRIP_PX = 40;

/** What lies between the cuts, repeated small along the foot of the bench. */
function paintStrip(ctx: Ctx, area: { width: number; height: number }, ratio: number, bench: MotifBench): void {
  const { motif } = bench;
  const { pitch_mm } = motif;
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
