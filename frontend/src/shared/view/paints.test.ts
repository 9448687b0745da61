import { describe, expect, it } from "vitest";
import { cssOf, NO_PAINTS, ownOf } from "./paints";
import { fainter } from "./stamp";

describe("paints of pieces", () => {
  it("writes a colour with its share, leading zeros too", () => {
    expect(cssOf(0x0a3a2fff)).toBe("#0a3a2fff");
    expect(cssOf(0x00000080)).toBe("#00000080");
  });

  it("goes by the piece's colouring, and by its motif's place where that is left out", () => {
    const table = { paints: new Uint32Array([1, 2, 3, 4, 5, 6]), wide: 2, colouring: new Uint32Array([2, 0]) };
    expect(ownOf(table, 0, 1)!(1)).toBe("#00000006");
    expect(ownOf(table, 1, 1)!(0)).toBe("#00000001");
    expect(ownOf({ ...table, colouring: new Uint32Array(0) }, 0, 1)!(0)).toBe("#00000003");
  });

  it("leaves a motif's own colours where there are none", () => {
    expect(ownOf(NO_PAINTS, 3, 0)).toBeNull();
  });

  it("makes a colour fainter by what a shape covers of its box", () => {
    expect(fainter("#a33a2f", 0.5)).toBe("#a33a2f80");
    expect(fainter("#a33a2f80", 0.5)).toBe("#a33a2f40");
    expect(fainter("#a33a2f", 1)).toBe("#a33a2f");
  });
});
