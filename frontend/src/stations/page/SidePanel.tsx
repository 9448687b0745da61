import { useRef } from "react";
import type { Line, Page, Workshop } from "../../shared/api/client";
import type { Cure, Scene } from "../../shared/api/scenes";
import { useTrouble } from "../../shared/api/queries";
import { Caution, Findings } from "../../shared/ui/Findings";
import { Picker } from "../../shared/ui/Picker";
import { Swatch, useSwatches } from "../../shared/view/Swatch";
import { LineSettings } from "./LineSettings";
import { PageMenu } from "./PageMenu";
import type { Mode, PlacedFinding } from "./types";
import { TakeAway } from "./TakeAway";
import type { LineChanges } from "./usePage";

interface Props {
  workshop: Workshop;
  page: Page;
  lines: Line[];
  scenes: Scene[];
  chosen: Line | null;
  mode: Mode;
  brushId: number | null;
  findings: PlacedFinding[];
  finding: number | null;
  waiting: boolean;
  trying: boolean;
  changes: LineChanges;
  onMode: (mode: Mode) => void;
  onBrush: (id: number) => void;
  onChoose: (id: number | null) => void;
  onGoToFinding: (i: number) => void;
  onPreview: (cure: Cure | null, i: number) => void;
  onTake: (cure: Cure, i: number) => void;
}

export function SidePanel(props: Props) {
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
              className="flex h-[44px] items-center gap-2 border-b border-rule bg-work pr-1 aria-[current]:border-l-4 aria-[current]:border-l-indigo"
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

function Mini({
  label,
  disabled,
  onPress,
  children,
}: {
  label: string;
  disabled?: boolean;
  onPress: () => void;
  children: React.ReactNode;
}) {
  return (
    <button
      aria-label={label}
      title={label}
      disabled={disabled}
      className="flex h-[26px] w-[24px] items-center justify-center text-moss hover:text-loden disabled:opacity-30"
      onClick={onPress}
    >
      <svg
        width="14"
        height="14"
        viewBox="0 0 14 14"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.4"
        strokeLinecap="round"
        strokeLinejoin="round"
      >
        {children}
      </svg>
    </button>
  );
}

function DrawWith({ workshop, brushId, mode, onMode, onBrush, changes }: Props) {
  const file = useRef<HTMLInputElement>(null);
  const say = useTrouble((s) => s.say);
  const bringIn = async (chosenFile: File | undefined): Promise<void> => {
    if (!chosenFile || !brushId) return;
    if (chosenFile.size > 10 * 1024 * 1024)
      say(`${chosenFile.name} is more than the 10 MB a drawing may have; nothing was brought in`);
    else changes.bringIn.mutate({ brush_id: brushId, svg: await chosenFile.text() });
  };
  const ways: [Exclude<Mode, null>, string][] = [
    ["hand", "By hand"],
    ["points", "By points"],
  ];
  return (
    <div>
      <div role="group" aria-label="Draw a line" className="flex items-baseline gap-4">
        <span className="text-moss">Draw</span>
        {ways.map(([way, words]) => (
          <button
            key={way}
            aria-pressed={mode === way}
            disabled={!brushId}
            className="border-b-2 border-loden pb-px font-semibold aria-pressed:border-madder disabled:text-moss"
            onClick={() => onMode(mode === way ? null : way)}
          >
            {words}
          </button>
        ))}
        <button
          className="border-b-2 border-loden pb-px font-semibold disabled:text-moss"
          disabled={!brushId}
          onClick={() => file.current?.click()}
        >
          Bring in SVG
        </button>
        <input
          ref={file}
          type="file"
          accept=".svg,image/svg+xml"
          className="hidden"
          data-testid="lines-file"
          onChange={(event) => {
            void bringIn(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </div>
      {brushId && (
        <div className="mt-1.5 flex items-center gap-2">
          <span className="text-moss">with</span>
          <Picker label="Brush for the next line" options={workshop.brushes} value={brushId} onSet={onBrush} />
        </div>
      )}
      {mode === "points" && <TypedPoints brushId={brushId} changes={changes} />}
    </div>
  );
}

/** Points given in figures, for exact work and for drawing without a pointer. */
function TypedPoints({ brushId, changes }: { brushId: number | null; changes: LineChanges }) {
  const say = useTrouble((s) => s.say);
  return (
    <form
      className="mt-1.5 flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const text = String(new FormData(event.currentTarget).get("points"));
        const numbers = text
          .trim()
          .split(/[\s,;]+/)
          .map(Number);
        if (numbers.length < 4 || numbers.length % 2 || numbers.some((n) => !Number.isFinite(n))) {
          say("points are read as pairs of mm, such as 40,60 120,60 120,140");
          return;
        }
        const points = Array.from({ length: numbers.length / 2 }, (_, i): [number, number] => [
          numbers[2 * i],
          numbers[2 * i + 1],
        ]);
        if (brushId)
          changes.draw.mutate({
            brush_id: brushId,
            source: { kind: "points", points, flowing: points.map(() => false), closed: false },
          });
      }}
    >
      <input
        name="points"
        aria-label="Points in mm"
        placeholder="or type: 40,60 120,60"
        className="min-w-0 flex-1 border-b border-loden bg-transparent px-0.5"
      />
      <button className="plain-button">Draw</button>
    </form>
  );
}

function FirstLine({ workshop, brushId, changes, page }: Props) {
  if (!brushId) return <p className="mb-2 text-moss">There is no brush to draw with yet. Make one at the Motif station.</p>;
  const [w, h] = [page.width_mm, page.height_mm];
  const wave = {
    kind: "path" as const,
    d: `M${0.1 * w} ${h / 2}C${0.3 * w} ${0.2 * h} ${0.45 * w} ${0.2 * h} ${0.5 * w} ${h / 2}S${0.7 * w} ${0.8 * h} ${0.9 * w} ${h / 2}`,
  };
  return (
    <div className="mb-2">
      <p className="mb-2">
        Press <b>By hand</b> and pull across the sheet, or begin with a sample.
      </p>
      <button
        className="firm-button"
        onClick={() => changes.draw.mutate({ brush_id: brushId, source: wave, name: "Sample wave" })}
      >
        Lay {workshop.brushes.find((b) => b.id === brushId)?.name} on a wave
      </button>
    </div>
  );
}
