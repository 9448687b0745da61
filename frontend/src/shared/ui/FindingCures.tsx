import type { Cure } from "../api/scenes";

const CURE =
  "my-0.5 min-h-6 text-left text-indigo underline decoration-dotted underline-offset-2 " +
  "hover:bg-indigo-wash focus-visible:bg-indigo-wash";

/** What can be done with findings. */
export interface Hands {
  waiting: boolean;
  onPreview: (cure: Cure | null, index: number) => void;
  /** Take a cure; of `onCopyFor` findings' lines, where it is to change a copy of their brush. */
  onTake: (cure: Cure, index: number, onCopyFor: number[] | null) => void;
  /** How far a change to a finding's brush reaches, in words. */
  reachOf: (index: number) => string;
  onGoTo?: (index: number) => void;
  chosen?: number | null;
}

interface CuresProps {
  cures: Cure[];
  of: number;
  copyFor: number[] | null;
  hands: Hands;
}

/** Cures as words to press; each is seen while it is pointed at or has the focus. */
export function Cures({ cures, of, copyFor, hands: { onPreview, onTake } }: CuresProps) {
  return cures.map((cure) => (
    <button
      key={cure.label}
      className={CURE}
      onPointerEnter={() => onPreview(cure, of)}
      onPointerLeave={() => onPreview(null, of)}
      onFocus={() => onPreview(cure, of)}
      onBlur={() => onPreview(null, of)}
      onClick={() => onTake(cure, of, cure.change.brush ? copyFor : null)}
    >
      {cure.label}
      {cure.change.brush ? "" : " (this line)"}
    </button>
  ));
}

/** What is to be said beside the cures: that they are worked out, that others were not tried for want of time, or that there is none. */
export function Remark({ cures, untried, waiting, many }: { cures: Cure[]; untried: boolean; waiting: boolean; many: boolean }) {
  const said = (words: string) => <span className="text-moss">{words}</span>;
  if (waiting) return cures.length ? null : said("working out cures…");
  if (untried) return said(cures.length ? "more not tried" : "no cure tried in time");
  if (cures.length) return null;
  return said(many ? "no one change removes them all" : "no change to the brush alone removes it");
}

/** How far cures that change the brush reach, and that they may change a copy of it. */
export function Reach({ words, onCopy, onTick }: { words: string; onCopy: boolean; onTick: (onCopy: boolean) => void }) {
  return (
    <div className="flex w-full flex-wrap items-center gap-x-3 text-[12.5px] text-moss">
      <span className={onCopy ? "line-through" : ""}>{words}</span>
      <label className="flex min-h-6 items-center gap-1.5">
        <input type="checkbox" checked={onCopy} onChange={(event) => onTick(event.target.checked)} /> on a copy of the brush
      </label>
    </div>
  );
}
