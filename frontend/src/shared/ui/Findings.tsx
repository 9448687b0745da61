import type { Cure, Finding } from "../api/scenes";
import { Caution } from "./Verdict";

const CURE =
  "my-0.5 min-h-6 text-left text-indigo underline decoration-dotted underline-offset-2 " +
  "hover:bg-indigo-wash focus-visible:bg-indigo-wash";

interface Props {
  findings: Finding[];
  waiting: boolean;
  onPreview: (cure: Cure | null, index: number) => void;
  onTake: (cure: Cure, index: number) => void;
  onGoTo?: (index: number) => void;
  chosen?: number | null;
}

/** Findings told by shape, word and figure, each with its cures; a cure is seen before it is taken. */
export function Findings({ findings, waiting, onPreview, onTake, onGoTo, chosen }: Props) {
  return (
    <ul className="flex flex-col gap-1.5">
      {grouped(findings).map(({ first, members, cures }) => (
        <li
          key={first}
          aria-current={(chosen !== null && members.includes(chosen ?? -1)) || undefined}
          className="border border-rule bg-work px-2.5 py-1.5 aria-[current]:border-weld"
        >
          <button className="flex w-full items-start gap-2 text-left font-semibold" onClick={() => onGoTo?.(first)}>
            <Caution />
            {title(members.map((i) => findings[i]))}
          </button>
          <div className="mt-0.5 flex flex-wrap gap-x-3 pl-6">
            {cures.map((cure) => (
              <button
                key={cure.label}
                className={CURE}
                onPointerEnter={() => onPreview(cure, first)}
                onPointerLeave={() => onPreview(null, first)}
                onFocus={() => onPreview(cure, first)}
                onBlur={() => onPreview(null, first)}
                onClick={() => onTake(cure, first)}
              >
                {cure.label}
                {cure.change.brush ? "" : " (this line)"}
              </button>
            ))}
            {!cures.length && waiting && <span className="text-moss">working out cures…</span>}
            {!waiting && <Remark cures={cures} untried={members.some((i) => findings[i].untried)} />}
          </div>
        </li>
      ))}
    </ul>
  );
}

/** What is to be said beside the cures: that others were not tried for want of time, or that there is none. */
function Remark({ cures, untried }: { cures: Cure[]; untried: boolean }) {
  if (untried) return <span className="text-moss">{cures.length ? "more not tried" : "no cure tried in time"}</span>;
  return cures.length ? null : <span className="text-moss">no change to the brush alone removes it</span>;
}

interface Group {
  first: number;
  members: number[];
  cures: Cure[];
}

/** Put findings of one place together where they share a cure; only the cures that remove all are offered. */
function grouped(findings: Finding[]): Group[] {
  const groups: Group[] = [];
  findings.forEach((finding, i) => {
    const group = groups.find(
      (g) => Math.abs(findings[g.first].at_mm - finding.at_mm) < 0.05 && findings[g.first].at[0] === finding.at[0],
    );
    const shared = group?.cures.filter((c) => finding.cures.some((d) => d.label === c.label)) ?? [];
    if (group && (shared.length || (!group.cures.length && !finding.cures.length))) {
      group.members.push(i);
      group.cures = shared;
    } else groups.push({ first: i, members: [i], cures: finding.cures });
  });
  return groups;
}

function title(findings: Finding[]): string {
  if (findings.length === 1) return findings[0].message;
  const parts = findings.map(
    (f) => `${f.kind} ${f.unit === "mm" ? `${f.amount.toFixed(2)} mm` : `${f.amount.toFixed(0)}${f.unit}`}`,
  );
  return `${parts.join(", ")} at ${findings[0].at_mm.toFixed(1)} mm`;
}
