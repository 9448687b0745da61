import { Caution, Findings } from "../../shared/ui/Findings";
import { Swatch, useSwatches } from "../../shared/view/Swatch";
import { LineSettings } from "./LineSettings";
import { PageMenu } from "./PageMenu";
import type { SideProps } from "./types";
import { TakeAway } from "./TakeAway";
import { Mini } from "./Mini";
import { DrawWith, FirstLine } from "./DrawWith";

const CURRENT = "aria-[current]:border-l-4 aria-[current]:border-l-indigo";

export function SidePanel(props: SideProps) {
  const { workshop, page, lines, scenes, chosen, findings, changes } = props;
  const swatches = useSwatches(workshop);
  const front = [...lines].reverse();
  return (
    <aside aria-label="Lines" className="flex w-[352px] shrink-0 flex-col border-l border-rule px-4 pt-2.5 pb-3">
      <div className="mb-2 flex items-center justify-between gap-2">
        <PageMenu workshop={workshop} page={page} />
        <TakeAway page={page} />
      </div>
      <DrawWith {...props} />
      <h2 className="mt-2.5 mb-1 text-[15px]">Lines, front to back</h2>
      {!lines.length && <FirstLine {...props} />}
      <ul
        className="min-h-[118px] shrink overflow-y-auto border-y border-rule"
        style={{ flexBasis: Math.min(270, lines.length * 45 + 2) }}
      >
        {front.map((line, i) => {
          const scene = scenes.find((s) => s.line_id === line.id);
          const brush = workshop.brushes.find((b) => b.id === line.brush_id);
          return (
            <li
              key={line.id}
              aria-current={chosen?.id === line.id || undefined}
              className={`flex h-[44px] items-center gap-2 border-b border-rule bg-work pr-1 ${CURRENT}`}
            >
              <button
                className="flex h-full min-w-0 flex-1 items-center gap-2 pl-2 text-left"
                onClick={() => props.onChoose(line.id)}
              >
                <span aria-hidden className="h-[34px] w-[46px] shrink-0">
                  <Swatch of={swatches(line.brush_id)} label={brush?.name ?? ""} />
                </span>
                <span className={`min-w-0 flex-1 leading-tight ${line.visible ? "" : "opacity-55"}`}>
                  <span className="block truncate font-semibold">{line.name}</span>
                  <span className="block truncate text-[12px] text-moss">
                    {line.visible ? (scene?.pieces ?? "…") : "hidden"} · {brush?.name}
                    {line.size_pct === 100 ? "" : ` · ${Number(line.size_pct.toFixed(1))} %`}
                  </span>
                </span>
                {(scene?.findings.length || scene?.refused) && <Caution size={12} />}
              </button>
              <span className="flex shrink-0">
                <Mini
                  label={`Bring ${line.name} forward`}
                  disabled={i === 0}
                  onPress={() => changes.change.mutate({ line, to_place: i - 1, label: `${line.name} forward` })}
                >
                  <path d="M3 8L7 4L11 8" />
                </Mini>
                <Mini
                  label={`Send ${line.name} back`}
                  disabled={i === front.length - 1}
                  onPress={() => changes.change.mutate({ line, to_place: i + 1, label: `${line.name} back` })}
                >
                  <path d="M3 6L7 10L11 6" />
                </Mini>
              </span>
              <button
                aria-label={`${line.visible ? "Hide" : "Show"} ${line.name}`}
                className="h-[26px] w-[34px] shrink-0 text-[12px] text-moss underline decoration-dotted hover:text-loden"
                onClick={() =>
                  changes.change.mutate({ line, visible: !line.visible, label: `${line.visible ? "hide" : "show"} ${line.name}` })
                }
              >
                {line.visible ? "hide" : "show"}
              </button>
            </li>
          );
        })}
      </ul>
      {chosen && (
        <LineSettings
          key={chosen.id}
          line={chosen}
          workshop={workshop}
          scene={scenes.find((s) => s.line_id === chosen.id)}
          changes={changes}
          onGone={() => props.onChoose(null)}
        />
      )}
      <h2 className="mt-2.5 mb-1 truncate text-[15px]">
        Findings {/* one line whatever it says, or the list would slip from under the pointer */}
        <span className={`font-sans text-[12.5px] ${props.trying ? "font-bold text-madder" : "font-normal text-moss"}`}>
          {props.trying ? "showing the cure, not yet taken" : chosen ? `on ${chosen.name}` : "on the page"}
        </span>
      </h2>
      <div className="min-h-[60px] flex-1 overflow-y-auto">
        {findings.length ? (
          <Findings
            findings={findings}
            waiting={props.waiting}
            onPreview={props.onPreview}
            onTake={props.onTake}
            onGoTo={props.onGoToFinding}
            chosen={props.finding}
          />
        ) : (
          <p className="text-moss">{lines.length ? "None: every join keeps its wish." : "Nothing is laid yet."}</p>
        )}
      </div>
    </aside>
  );
}
