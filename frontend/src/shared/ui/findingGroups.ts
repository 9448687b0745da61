import type { Cure, Finding } from "../api/scenes";

/** A finding of a page also says on which line it is, and which brush lies there. */
export type Told = Finding & { lineId?: number; brushId?: number };

/** Findings of one kind on lines of one brush, told in one row. */
export interface FindingGroup {
  kind: string;
  title: string;
  /** The number of the worst, and of all. */
  worst: number;
  members: number[];
  /** What removes all of them. */
  cures: Cure[];
  untried: boolean;
}

/** Put findings of a kind and brush together, in the order in which the first of each comes. */
export function groupsOf(findings: Told[]): FindingGroup[] {
  const byKey = new Map<string, number[]>();
  findings.forEach((finding, i) => {
    const key = `${finding.brushId ?? ""} ${finding.kind}`;
    const members = byKey.get(key);
    if (members) members.push(i);
    else byKey.set(key, [i]);
  });
  return [...byKey.values()].map((members) => {
    const own = members.map((i) => findings[i]);
    return {
      kind: own[0].kind,
      title: titleOf(own),
      worst: members.reduce((worst, i) => (worseThan(findings[i], findings[worst]) ? i : worst)),
      members,
      cures: members.length === 1 ? own[0].cures : curesOfAll(own),
      untried: own.some((finding) => finding.untried),
    };
  });
}

const worseThan = (one: Finding, two: Finding): boolean =>
  one.kind === "tight bend" ? one.amount < two.amount : one.amount > two.amount;

/** The cures that leave none of the kind on any of the lines: of one line its own, of several only changes to their brush. */
function curesOfAll(findings: Told[]): Cure[] {
  const byLine = new Map<number | undefined, Map<string, Cure>>();
  for (const { kind, lineId, cures } of findings) {
    const clearing = byLine.get(lineId) ?? new Map<string, Cure>();
    byLine.set(lineId, clearing);
    for (const cure of cures) if (cure.clears.includes(kind)) clearing.set(JSON.stringify(cure.change), cure);
  }
  const [first, ...others] = [...byLine.values()];
  return [...first].flatMap(([key, cure]) =>
    others.every((line) => line.has(key)) && (!others.length || cure.change.brush) ? [cure] : [],
  );
}

const WORDS: Record<string, (count: string, worst: number, least: number, limit: number) => string> = {
  gap: (count, worst) => `${count} gaps, widest ${mm(worst)}`,
  overlap: (count, worst) => `${count} overlaps, deepest ${mm(worst)}`,
  step: (count, worst) => `${count} steps, highest ${mm(worst)}`,
  kink: (count, worst) => `${count} kinks, sharpest ${worst.toFixed(0)}°`,
  tone: (count, worst) => `${count} joins differ in colour, by up to ΔE ${worst.toFixed(1)}`,
  fold: (count, worst) => `${count} folds, deepest ${mm(worst)}`,
  leftover: (count, worst) => `left over on ${count} runs, up to ${mm(worst)}`,
  "tight bend": (count, _, least, limit) => `${count} bends below ${limit.toFixed(1)} mm, tightest ${least.toFixed(1)} mm`,
  "broken order": (count) => `the order of the variants does not close on ${count} runs`,
  "over-stretched": (count, worst, least) =>
    `${count} pieces out of proportion, up to ${Math.max(worst, 1 / least).toFixed(1)} times`,
  "crowded corner": (count) => `${count} crowded corners`,
};

const mm = (amount: number): string => `${amount.toFixed(2)} mm`;

/** One alone speaks for itself; of several the number and the worst are told. */
function titleOf(findings: Finding[]): string {
  if (findings.length === 1) return findings[0].message;
  const amounts = findings.map((finding) => finding.amount);
  const count = findings.reduce((sum, finding) => sum + finding.count, 0);
  const words = WORDS[findings[0].kind];
  if (!words) return `${findings[0].message}, and ${findings.length - 1} more`;
  const limit = Math.max(...findings.map((finding) => finding.limit ?? 0));
  return words(count.toLocaleString("en"), Math.max(...amounts), Math.min(...amounts), limit);
}
