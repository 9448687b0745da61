import type { Settings } from "../../shared/api/client";
import type { SettingsChange } from "../../shared/ui/settings";

export type Variation = NonNullable<Settings["variations"]>[number];
export type Property = Variation["of"];
export type Source = NonNullable<Variation["follows"]>;

interface About {
  word: string;
  unit: string;
  /** What a bar shows where values do not go beyond it. */
  from: number;
  to: number;
  step: number;
  /** What it starts with. */
  start: [number, number];
}

/** What can vary, in the order in which it is offered. */
export const PROPERTIES: Record<Property, About> = {
  size: { word: "size", unit: "%", from: 0, to: 200, step: 5, start: [70, 100] },
  turn: { word: "turn", unit: "°", from: -180, to: 180, step: 5, start: [-10, 10] },
  across: { word: "across", unit: "%", from: -300, to: 300, step: 10, start: [-50, 50] },
  along: { word: "along", unit: "%", from: -100, to: 100, step: 5, start: [-20, 20] },
  gap: { word: "gap", unit: "%", from: 0, to: 200, step: 5, start: [0, 30] },
  squash: { word: "squash", unit: "%", from: 0, to: 200, step: 5, start: [70, 100] },
  count: { word: "how many", unit: "", from: 0, to: 10, step: 1, start: [1, 3] },
  opacity: { word: "opacity", unit: "%", from: 0, to: 100, step: 5, start: [50, 100] },
  hue: { word: "hue", unit: "°", from: -180, to: 180, step: 2, start: [-12, 12] },
  strength: { word: "strength", unit: "%", from: 0, to: 200, step: 5, start: [85, 115] },
  lightness: { word: "lightness", unit: "", from: -50, to: 50, step: 1, start: [-4, 4] },
  tooth: { word: "tooth", unit: "%", from: 0, to: 200, step: 5, start: [50, 100] },
  mix: { word: "mix of inks", unit: "%", from: 0, to: 100, step: 5, start: [0, 100] },
  mirror_left_right: { word: "mirrored left–right", unit: "%", from: 0, to: 100, step: 10, start: [0, 100] },
  mirror_up_down: { word: "mirrored up–down", unit: "%", from: 0, to: 100, step: 10, start: [0, 100] },
};
export const NAMES = Object.keys(PROPERTIES) as Property[];

/** What a property may follow, as a row says it, and the words and unit of how far a source takes where it says so. */
export const SOURCES: Partial<Record<Source, { words: string; over?: [string, string, number] }>> = {
  chance: { words: "by chance" },
  pieces: { words: "piece by piece", over: ["over", "pieces", 25] },
  distance: { words: "along the way", over: ["over", "mm", 100] },
  length: { words: "start to end" },
  turns: { words: "in turns", over: ["of", "pieces", 2] },
  direction: { words: "by direction" },
};

/** What can stand in a brush but is not offered: it is seen on a brush with a finish, and none has one yet. */
const NOT_SEEN: Property[] = ["tooth"];

/** What cannot vary where pieces travel so. */
function fixed(travel: Partial<Settings["travel"]>): Property[] {
  const kind = travel.kind ?? "repeated";
  if (kind === "once_length" || kind === "once_proportion") return ["size", "along", "count", "gap"];
  const jointed = travel.round_bends === "jointed" && kind === "repeated";
  return jointed ? ["size", "squash", "along", "across", "count", "gap"] : [];
}

/** Another way of travel, with what can no longer vary left as it is. */
export function travelling({ travel, variations }: Settings, change: Partial<Settings["travel"]>): SettingsChange {
  const out = fixed({ ...travel, ...change });
  const kept = (variations ?? []).filter(({ of }) => !out.includes(of));
  return { travel: change, ...(kept.length === (variations ?? []).length ? {} : { variations: kept }) };
}

/** What a brush's way of travel leaves to vary. */
export function offered({ travel, variations }: Settings): Property[] {
  const out = fixed(travel ?? {});
  const known = new Set((variations ?? []).map(({ of }) => of));
  return NAMES.filter((name) => ![...out, ...NOT_SEEN].includes(name) && !known.has(name));
}

/** A property as it first varies: by chance. */
export const started = (of: Property): Variation => ({
  of,
  follows: "chance",
  between: [...PROPERTIES[of].start],
  gather_pct: 0,
});

/** What goes on along a line: there the size and the opacity fade, the least size still to be seen. */
const GOING_ON: Source[] = ["pieces", "distance", "length"];
const FADED: Partial<Record<Property, [number, number]>> = { size: [100, 50], opacity: [100, 0] };

/** A variation that follows another source: between what suits that one, where its values are still what it started with. */
export function following({ of, follows, between }: Variation, next: Source): Variation {
  const suited = (source: Source): [number, number] => (GOING_ON.includes(source) && FADED[of]) || PROPERTIES[of].start;
  const untouched = String(between) === String(suited(follows ?? "chance"));
  return { of, follows: next, between: untouched ? [...suited(next)] : between, over: null, gather_pct: 0 };
}

/** The words of what varies, for the brush's text; nothing where nothing does. */
export function looseWords({ variations }: Settings): string | null {
  const loose = (variations ?? []).filter((own) => !isSides(own)); // which is said where mirrors are
  const words = [...new Set(loose.map(({ of }) => PROPERTIES[of].word))];
  if (!words.length) return null;
  return words.length > 4 ? `${words.slice(0, 3).join(", ")} and ${words.length - 3} more` : words.join(", ");
}

/** Every second piece mirrored about the line, as leaves lie on alternate sides of a stem. */
const SIDES: Variation = { of: "mirror_up_down", follows: "turns", between: [0, 100], gather_pct: 0 };
const isSides = ({ of, follows, between, over }: Variation): boolean =>
  of === SIDES.of && follows === SIDES.follows && String(between) === String(SIDES.between) && (over ?? 2) === 2;

export type Mirroring = NonNullable<Settings["travel"]["mirror"]> | "sides";

/** How a brush mirrors its pieces. */
export function mirroring({ travel, variations }: Settings): Mirroring {
  return variations?.some(isSides) ? "sides" : (travel.mirror ?? "off");
}

/** Pieces mirrored in another way. */
export function mirrored({ variations }: Settings, next: Mirroring): SettingsChange {
  const kept = (variations ?? []).filter((own) => !isSides(own));
  const own = next === "sides" ? [...kept, SIDES] : kept;
  return { travel: { mirror: next === "sides" ? "off" : next }, variations: own };
}

/** Pieces scattered, loosely enough to be seen where nothing varies yet; links let go of one another. */
export function scattered({ travel, variations }: Settings): SettingsChange {
  const rigid = travel.round_bends === "jointed" ? ({ round_bends: "rigid" } as const) : {};
  const loose = (["size", "turn", "across"] as const).map((of) => ({
    ...started(of),
    ...(of === "turn" ? { between: [-25, 25] } : {}),
  }));
  const own = variations?.length ? {} : { variations: loose };
  return { travel: { kind: "scattered", ...rigid }, ...own };
}
