import { describe, expect, it } from "vitest";
import type { Settings } from "../../shared/api/client";
import { withChange } from "../../shared/ui/settings";
import { following, looseWords, mirrored, mirroring, NAMES, offered, started, type Property } from "./variations";

const settings = (travel: object, of: Property[] = []): Settings =>
  ({ travel: { kind: "repeated", round_bends: "rigid", ...travel }, variations: of.map(started) }) as unknown as Settings;

describe("what can vary", () => {
  it("offers what the way of travel leaves, and nothing twice", () => {
    const seen = NAMES.filter((name) => name !== "tooth"); // which only a finish shows
    expect(offered(settings({}))).toEqual(seen);
    expect(offered(settings({}, ["size", "hue"]))).not.toContain("size");
    expect(offered(settings({ round_bends: "jointed" }))).toEqual(
      seen.filter((name) => !["size", "squash", "along", "across", "count", "gap"].includes(name)),
    );
    expect(offered(settings({ kind: "once_length" }))).not.toContain("count");
    expect(offered(settings({ kind: "scattered", round_bends: "jointed" }))).toContain("across");
  });

  it("says what varies in a few words", () => {
    expect(looseWords(settings({}))).toBeNull();
    expect(looseWords(settings({}, ["size", "count"]))).toBe("size, how many");
    expect(looseWords(settings({}, ["size", "turn", "across", "hue", "mix"]))).toBe("size, turn, across and 2 more");
  });

  it("changes the list as a whole, and a section key by key", () => {
    const before = { spacing: { size_pct: 100, gap_pct: 5 }, variations: [started("size")] } as unknown as Settings;
    const after = withChange(before, { variations: [started("turn")], spacing: { gap_pct: 7 } });
    expect(after.variations!.map(({ of }) => of)).toEqual(["turn"]);
    expect(after.spacing).toEqual({ size_pct: 100, gap_pct: 7 });
    expect(before.variations!.map(({ of }) => of)).toEqual(["size"]);
  });
});

describe("alternate sides", () => {
  it("are one press, are told as such, and go with another way of mirroring", () => {
    const own = settings({}, ["turn"]);
    const sides = withChange(own, mirrored(own, "sides"));
    expect(sides.variations).toHaveLength(2);
    expect(mirroring(sides)).toBe("sides");
    expect(looseWords(sides)).toBe("turn");
    const up = withChange(sides, mirrored(sides, "up_down"));
    expect([mirroring(up), up.variations]).toEqual(["up_down", own.variations]);
  });
});

describe("what a property follows", () => {
  it("fades along the line, unless its values were set, and comes back as it started", () => {
    const faded = following(started("opacity"), "pieces");
    expect(faded.between).toEqual([100, 0]);
    expect(following(started("size"), "length").between).toEqual([100, 50]);
    expect(following(faded, "chance")).toMatchObject(started("opacity"));
    expect(following({ ...started("size"), between: [20, 90] }, "distance").between).toEqual([20, 90]);
    expect(following(started("turn"), "length").between).toEqual(started("turn").between);
  });
});
