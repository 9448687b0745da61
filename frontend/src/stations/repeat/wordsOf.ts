import type { Settings } from "../../shared/api/client";
import type { Blend } from "../../shared/view/cover";

export const KIND: Record<string, string> = {
  repeated: "repeated",
  scattered: "scattered",
  once_length: "once, length only",
  once_proportion: "once, in proportion",
};
export const ORDER = { in_turn: "in turn", shuffled: "shuffled", chance: "by chance", no_twin: "never a twin" } as const;
export const FACING = { line: "along the line", page: "level with the page", start: "as at the start" } as const;
export const MIRROR = {
  off: "not mirrored",
  up_down: "mirrored up–down",
  left_right: "mirrored left–right",
  every_second: "every second one mirrored",
  sides: "on alternate sides",
} as const;
export const EASE = {
  leave: "is left",
  gaps: "goes into the gaps",
  size: "goes into the size",
  length: "goes into the length",
} as const;
export const REST = { end: "at the end", both: "at both ends", start: "at the start" } as const;
export const CORNERS: Record<string, string> = {
  through: "runs through",
  butt: "ends at",
  round: "goes round",
  mitre: "mitres",
  lap: "laps at",
  piece: "has an own piece at",
};

/** How the line's colours come to lie on what is below; nothing where they cover it. */
export function inkWords({ ink }: Settings): string[] {
  const { per_piece_pct = 100, ceiling_pct = 100, laid_on_as = "normal", blends = "line" } = ink ?? {};
  const { ink: own, gives = "everything", second_ink: second, coverage = "as_drawn" } = ink ?? {};
  return [
    !!own && gives !== "nothing" && `${second ? "two inks give" : "its ink gives"} ${gives.replace("_", " and ")}`,
    coverage !== "as_drawn" && `what is ${coverage === "light_shows" ? "light" : "dark"} shows`,
    per_piece_pct < 100 && `each piece covers ${per_piece_pct} %`,
    ceiling_pct < 100 && `the line covers at most ${ceiling_pct} %`,
    laid_on_as !== "normal" && `${blends === "line" ? "the line" : "each piece"} is laid on as ${wayWords(laid_on_as)}`,
  ].filter((text) => text !== false);
}

/** A way of laying on, in words. */
export const wayWords = (way: Blend): string => way.replace("-", " ").replace("color", "colour");

/** What the width does along the line; nothing where it is one all along. */
export function handWords({ hand }: Settings): string | null {
  const tapered = (hand?.taper_start_mm ?? 0) > 0 || (hand?.taper_end_mm ?? 0) > 0;
  const thick = (hand?.width_along?.length ?? 0) > 0;
  return thick ? (tapered ? "goes thick and thin and tapers" : "goes thick and thin") : tapered ? "tapers at the ends" : null;
}
