import { useState } from "react";
import { Cures, Reach, Remark, type Hands } from "./FindingCures";
import { groupsOf, type FindingGroup, type Told } from "./findingGroups";
import { Caution } from "./Verdict";

const MOST_PLACES = 60;

/** Findings told by shape, word and figure, a row a kind and brush, each with its cures; a cure is seen before it is taken. */
export function Findings({ findings, ...hands }: Hands & { findings: Told[] }) {
  return (
    <ul className="flex flex-col gap-1.5">
      {groupsOf(findings).map((group) => (
        <Row key={`${findings[group.worst].brushId ?? ""} ${group.kind}`} {...{ group, findings, hands }} />
      ))}
    </ul>
  );
}

function Row({ group, findings, hands }: { group: FindingGroup; findings: Told[]; hands: Hands }) {
  const [open, setOpen] = useState(false);
  const [onCopy, setOnCopy] = useState(false);
  const copyFor = onCopy ? group.members : null;
  const toBrush = (open ? group.members.flatMap((i) => findings[i].cures) : group.cures).some(({ change }) => change.brush);
  const many = group.members.length > 1;
  return (
    <li
      aria-current={(hands.chosen != null && group.members.includes(hands.chosen)) || undefined}
      className="border border-rule bg-work px-2.5 py-1.5 aria-[current]:border-weld"
    >
      <button className="flex w-full items-start gap-2 text-left font-semibold" onClick={() => hands.onGoTo?.(group.worst)}>
        <Caution />
        {group.title}
      </button>
      <div className="mt-0.5 flex flex-wrap gap-x-3 pl-6">
        <Cures cures={group.cures} of={group.worst} copyFor={copyFor} hands={hands} />
        <Remark cures={group.cures} untried={group.untried} waiting={hands.waiting} many={many} />
        {many && (
          <button className="my-0.5 min-h-6 text-moss hover:text-loden" aria-expanded={open} onClick={() => setOpen(!open)}>
            {group.members.length} places {open ? "▴" : "▾"}
          </button>
        )}
      </div>
      {open && <Places group={group} findings={findings} copyFor={copyFor} hands={hands} />}
      {toBrush && (
        <div className="pl-6">
          <Reach words={hands.reachOf(group.worst)} onCopy={onCopy} onTick={setOnCopy} />
        </div>
      )}
    </li>
  );
}

interface PlacesProps {
  group: FindingGroup;
  findings: Told[];
  copyFor: number[] | null;
  hands: Hands;
}

/** Every place of a group, each with its own cures. */
function Places({ group, findings, copyFor, hands }: PlacesProps) {
  const more = group.members.length - MOST_PLACES;
  return (
    <ol className="mt-1 flex flex-col gap-1 border-t border-rule pt-1 pl-6">
      {group.members.slice(0, MOST_PLACES).map((i) => (
        <li key={i} aria-current={hands.chosen === i || undefined} className="aria-[current]:text-weld-ink">
          <button className="text-left" onClick={() => hands.onGoTo?.(i)}>
            {findings[i].message}
          </button>
          <div className="flex flex-wrap gap-x-3">
            <Cures cures={findings[i].cures} of={i} copyFor={copyFor} hands={hands} />
          </div>
        </li>
      ))}
      {more > 0 && <li className="text-moss">and {more.toLocaleString("en")} more</li>}
    </ol>
  );
}
