const MM: Record<string, number> = { mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72, px: 25.4 / 96 };
const SAME: Record<string, string> = { deg: "°", '"': "in" };
const TOKENS = /\d+\.?\d*(?:e[+-]?\d+(?![a-z]))?|\.\d+|mm|cm|in|pt|px|%|°|deg|"|[-+*/()]/g;

/**
 * Read a typed number, with units and sums: "12.4mm", "1/2in", "3*4", "3,5", "12mm + 1/8in". A unit holds for its term,
 * a term without one is in the field's `unit`. Where that is no length but stands for some (`mmOfOne` mm for one of it), lengths
 * may be typed too. Null when it is not a number of the field's kind.
 */
export function numberFromText(text: string, unit: string, mmOfOne?: number): number | null {
  const plain = text.trim().toLowerCase().replace(/,/g, ".");
  const tokens = plain.match(TOKENS) ?? [];
  if (!tokens.length || tokens.join("") !== plain.replace(/\s+/g, "") || /[\d.]\s+[\d.]/.test(plain)) return null;
  const perUnit = (given: string): number | null => {
    const name = SAME[given] ?? given;
    if (name === unit) return 1;
    if (!(name in MM)) return null;
    if (unit in MM) return MM[name] / MM[unit];
    return mmOfOne ? MM[name] / mmOfOne : null;
  };
  const value = new Reader(tokens, perUnit).all();
  return value !== null && Number.isFinite(value) ? value : null;
}

/** Works out + − * / and brackets; null where it does not read. */
class Reader {
  private at = 0;

  constructor(
    private readonly tokens: string[],
    private readonly perUnit: (unit: string) => number | null,
  ) {}

  all(): number | null {
    const value = this.whole();
    return this.at === this.tokens.length ? value : null;
  }

  private whole(): number | null {
    let value = this.term();
    while (value !== null && ["+", "-"].includes(this.tokens[this.at])) {
      const plus = this.tokens[this.at++] === "+";
      const next = this.term();
      value = next === null ? null : plus ? value + next : value - next;
    }
    return value;
  }

  /** Factors with at most one unit among them, which holds for all. */
  private term(): number | null {
    let value = this.factor();
    let unit = this.unit();
    while (value !== null && ["*", "/"].includes(this.tokens[this.at])) {
      const times = this.tokens[this.at++] === "*";
      const next = this.factor();
      const own = this.unit();
      if (own !== null && unit !== null) return null;
      unit ??= own;
      value = next === null ? null : times ? value * next : value / next;
    }
    return value === null || unit === null ? value : Number.isNaN(unit) ? null : value * unit;
  }

  /** What the unit that stands here makes of one: null where none stands here, not a number where it is of another kind. */
  private unit(): number | null {
    const token = this.tokens[this.at];
    if (token === undefined || !/^[a-z%°"]/.test(token)) return null;
    this.at++;
    return this.perUnit(token) ?? NaN;
  }

  private factor(): number | null {
    const token = this.tokens[this.at++];
    if (token === undefined) return null;
    if (token === "-" || token === "+") {
      const value = this.factor();
      return value === null ? null : token === "-" ? -value : value;
    }
    if (token === "(") {
      const value = this.whole();
      return this.tokens[this.at++] === ")" ? value : null;
    }
    return /[\d.]/.test(token) ? Number(token) : null;
  }
}
