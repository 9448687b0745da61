import { cssOf } from "./paints";
import { stampShapes, type Stamp } from "./stamp";

const SIDE = 24; // px in which a stamp is looked at; chosen: a paint of a hundredth of it still shows
const STEP = 8; // of red between the colours that paints are told apart by

type Weight = [slot: number, share: number];

const weights = new WeakMap<Stamp, Weight[]>();
const colours = new WeakMap<Stamp, string>();

/**
 * How a stamp looks as one spot: the colours that are seen of it, mixed as much as each shows, covering as its speck does.
 * A piece has its own out of `paints` from `row` on, or the stamp's where that is negative.
 */
export function mixedOf(stamp: Stamp, paints: Uint32Array, row: number): string {
  if (row >= 0) return mix(stamp, (slot) => paints[row + slot]);
  const known = colours.get(stamp) ?? mix(stamp, drawnOf(stamp));
  colours.set(stamp, known);
  return known;
}

function mix(stamp: Stamp, rgbaOf: (slot: number) => number): string {
  let [red, green, blue] = [0, 0, 0];
  for (const [slot, share] of weightsOf(stamp)) {
    const rgba = rgbaOf(slot);
    red += share * (rgba >>> 24);
    green += share * ((rgba >>> 16) & 255);
    blue += share * ((rgba >>> 8) & 255);
  }
  const cover = stamp.speck.share > 0.98 ? 1 : stamp.speck.share;
  return cssOf(((Math.round(red) << 24) | (Math.round(green) << 16) | (Math.round(blue) << 8) | Math.round(255 * cover)) >>> 0);
}

/** The colours that a stamp's paints are drawn with. */
function drawnOf(stamp: Stamp): (slot: number) => number {
  const bySlot = new Map<number, string>();
  for (const { shape, fillSlot, strokeSlot } of stamp.shapes) {
    const put = (slot: number, colour: string | null, stops: { colour: string }[] = []): void => {
      if (colour) bySlot.set(slot, colour);
      stops.forEach((stop, i) => bySlot.set(slot + 1 + i, stop.colour));
    };
    put(fillSlot, shape.fill, shape.fill_gradient?.stops);
    put(strokeSlot, shape.stroke, shape.stroke_gradient?.stops);
  }
  return (slot) => parseInt(`${(bySlot.get(slot) ?? stamp.speck.colour).slice(1, 7)}ff`, 16);
}

/** What share of what is seen of a stamp each paint is, found by painting it small with a colour of its own for each. */
function weightsOf(stamp: Stamp): Weight[] {
  const known = weights.get(stamp);
  if (known) return known;
  const found = counted(stamp);
  weights.set(stamp, found);
  return found;
}

function counted(stamp: Stamp): Weight[] {
  const largest: Weight[] = [[stamp.speck.slot, 1]];
  const ctx = typeof OffscreenCanvas === "undefined" ? null : new OffscreenCanvas(SIDE, SIDE).getContext("2d");
  if (!ctx || !stamp.reach) return largest;
  const scale = SIDE / (2 * stamp.reach);
  ctx.setTransform(scale, 0, 0, scale, SIDE / 2, SIDE / 2);
  stampShapes(
    ctx,
    stamp,
    0,
    "all",
    (slot) =>
      `#${Math.min(255, STEP * (slot + 1))
        .toString(16)
        .padStart(2, "0")}00ffff`,
  );
  const counts = new Map<number, number>();
  const { data } = ctx.getImageData(0, 0, SIDE, SIDE);
  for (let at = 0; at < data.length; at += 4)
    if (data[at + 2] === 255 && data[at + 3] === 255 && data[at] % STEP === 0) {
      const slot = data[at] / STEP - 1;
      counts.set(slot, (counts.get(slot) ?? 0) + 1);
    }
  const all = [...counts.values()].reduce((a, b) => a + b, 0);
  return all ? [...counts].map(([slot, count]) => [slot, count / all]) : largest;
}
