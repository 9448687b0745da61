import type { Cure, Finding } from "../api/scenes";

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
      {findings.map((finding, i) => (
        <li key={i} aria-current={chosen === i || undefined} className="border border-rule bg-work px-2.5 py-1.5 aria-[current]:border-weld">
          <button className="flex w-full items-start gap-2 text-left" onClick={() => onGoTo?.(i)}>
            <Caution />
            <span>
              <span className="font-semibold">{finding.message}</span>
            </span>
          </button>
          <div className="mt-1 flex flex-wrap gap-1 pl-6">
            {finding.cures.map((cure) => (
              <button
                key={cure.label}
                className="border-b border-dotted border-indigo text-indigo hover:bg-indigo-wash focus-visible:bg-indigo-wash"
                onPointerEnter={() => onPreview(cure, i)}
                onPointerLeave={() => onPreview(null, i)}
                onFocus={() => onPreview(cure, i)}
                onBlur={() => onPreview(null, i)}
                onClick={() => onTake(cure, i)}
              >
                {cure.label}
                {cure.change.brush ? "" : " (this line)"}
              </button>
            ))}
            {!finding.cures.length && waiting && <span className="text-moss">working out cures…</span>}
            {!finding.cures.length && !waiting && <span className="text-moss">no change to the brush alone removes it</span>}
          </div>
        </li>
      ))}
    </ul>
  );
}

export function Caution({ size = 14 }: { size?: number }) {
  return (
    <svg aria-hidden className="mt-[3px] shrink-0" width={size} height={size} viewBox="0 0 14 14">
      <path d="M7 1L13.4 12.6H.6Z" fill="var(--color-weld)" />
      <path d="M7 5V8.6M7 10.4V11" stroke="#fff" strokeWidth="1.5" strokeLinecap="round" />
    </svg>
  );
}

export function Sound({ size = 14 }: { size?: number }) {
  return (
    <svg aria-hidden className="shrink-0" width={size} height={size} viewBox="0 0 14 14">
      <path d="M1.5 7.5L5.2 11.5L12.5 2.5" fill="none" stroke="var(--color-loden)" strokeWidth="2.2" strokeLinecap="round" strokeLinejoin="round" />
    </svg>
  );
}
