const MM: Record<string, number> = { mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72, px: 25.4 / 96 };

/**
 * Read a typed number, with units where lengths are meant and with sums: "12.4mm", "1/2in", "3*4",
 * "3,5". Lengths come back in mm, everything else in its own unit. Null when it is not a number.
 */
export function numberFromText(text: string, unit: string): number | null {
  const found = text
    .trim()
    .toLowerCase()
    .match(/^(.*?)\s*(mm|cm|in|pt|px|%|°|deg)?$/);
  if (!found) return null;
  const value = sum(found[1].replace(/,/g, "."));
  if (value === null || !Number.isFinite(value)) return null;
  const given = found[2];
  if (!given || given === unit || (given === "deg" && unit === "°")) return value;
  if (unit === "mm" && given in MM) return value * MM[given];
  return null;
}

/** Work out + − * / and brackets; null when it does not read. */
function sum(text: string): number | null {
  const tokens = text.match(/\d+\.?\d*(?:e[+-]?\d+)?|\.\d+|[-+*/()]/g) ?? [];
  if (tokens.join("") !== text.replace(/\s+/g, "") || tokens.length === 0) return null;
  let at = 0;
  const term = (): number | null => {
    let value = factor();
    while (value !== null && (tokens[at] === "*" || tokens[at] === "/")) {
      const times = tokens[at++] === "*";
      const next = factor();
      value = next === null ? null : times ? value * next : value / next;
    }
    return value;
  };
  const factor = (): number | null => {
    const token = tokens[at++];
    if (token === undefined) return null;
    if (token === "-" || token === "+") {
      const value = factor();
      return value === null ? null : token === "-" ? -value : value;
    }
    if (token === "(") {
      const value = whole();
      return tokens[at++] === ")" ? value : null;
    }
    return /[\d.]/.test(token) ? Number(token) : null;
  };
  const whole = (): number | null => {
    let value = term();
    while (value !== null && (tokens[at] === "+" || tokens[at] === "-")) {
      const plus = tokens[at++] === "+";
      const next = term();
      value = next === null ? null : plus ? value + next : value - next;
    }
    return value;
  };
  const value = whole();
  return at === tokens.length ? value : null;
}
