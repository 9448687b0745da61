import { useMemo, useState } from "react";
import type { Brush, Motif, Schemas, Settings, Workshop } from "../../shared/api/client";
import { useLay } from "../../shared/api/useLay";
import { focusField, useLetters, useWindowKey, isTyping } from "../../shared/ui/keys";
import { useSize } from "../../shared/view/WorkCanvas";
import { FlatRun } from "./FlatRun";
import { FLAT } from "./flatSizes";
import { PinMenu } from "./PinMenu";
import { TrialLarge } from "./TrialLarge";
import type { SheetPoint } from "./TrialPoints";
import { TrialSheet } from "./TrialSheet";
import { useBrushEdit } from "./useBrushEdit";
import { useGround } from "./useGround";
import type { Question } from "./types";
import { Words } from "./Words";
import { sameSettings } from "./sameSettings";
import { usePinned } from "./usePinned";

const othersOf = ({ start, end, outside_corner, inside_corner }: Brush["pieces"]) => ({
  start,
  end,
  outside_corner,
  inside_corner,
});

interface Props {
  brush: Brush;
  motifs: Motif[];
  pages: Workshop["pages"];
  history: Workshop["history"];
}

export function Bench({ brush, motifs, pages, history }: Props) {
  const [motif] = motifs;
  const repeats = useMemo(() => motifs.slice(0, brush.pieces.repeat.length), [motifs, brush.pieces.repeat.length]);
  const edit = useBrushEdit(brush);
  const [question, setQuestion] = useState<Question>("often");
  const [large, setLarge] = useState<string | null>(null);
  const ground = useGround();
  const { night } = ground;
  const [shaped, setShaped] = useState<Record<string, SheetPoint[]>>({});
  const [pinned, setPinned] = usePinned();
  const [aside, setAside] = useState<Settings | null>(null);
  const [step, setStep] = useState(0);
  const [comparing, setComparing] = useState(false);
  const [flatBox, flatSize] = useSize<HTMLElement>();
  const [held, setHeld] = useState<{ scale: number; trial: number | null }>({ scale: 0, trial: null });

  const settings = comparing && edit.before ? edit.before : edit.settings;
  const still = !edit.dragging && !comparing && settings === edit.kept;
  const guess = ((motif.piece ?? motif).width_mm * (edit.kept.spacing.size_pct ?? 100)) / 100;
  const scale = held.scale || FLAT.width(flatSize.width) / (5.4 * guess);
  const body = useMemo(
    () =>
      flatSize.width
        ? {
            motif_id: motif.id,
            variants: brush.pieces.repeat.slice(1),
            others: othersOf(brush.pieces),
            settings,
            pitch_mm: edit.pitch,
            shaped,
            pinned,
            large,
            aside,
            flat_mm: Number((FLAT.width(flatSize.width) / scale).toFixed(3)),
            trial_mm: still ? null : held.trial,
            trial_step: step,
          }
        : null,
    [motif.id, brush.pieces, settings, edit.pitch, shaped, pinned, large, aside, scale, flatSize.width, still, held.trial, step],
  );
  const { undo_id, redo_id } = history;
  const steps = pinned.length ? [undo_id, redo_id] : []; // pinned lines may have changed with any step
  const versions = [...motifs.map(({ version }) => version), ...steps].join("."); // asked anew for others
  const { laid, refusal, cured } = useLay<NonNullable<typeof body>, Schemas["BenchHeader"]>(`/api/bench/lay#${versions}`, body);

  const header = laid?.header;
  const fitting = header && FLAT.scale(flatSize, header.pitch_mm, header.height_mm);
  // the scales stand still while something is dragged and settle when it is let go
  if (still && header && fitting && (Math.abs(fitting - held.scale) > 1e-6 || header.trial_mm !== held.trial)) {
    setHeld({ scale: fitting, trial: header.trial_mm });
  }

  const ask = (which: Question, field: string): void => {
    setQuestion(which);
    focusField(field);
  };
  useLetters([
    { letter: "g", words: "gap", act: () => ask("often", "Gap") },
    { letter: "s", words: "size", act: () => ask("often", "Size") },
    { letter: "e", words: "ease", act: () => ask("often", "Ease") },
    { letter: "r", words: "rest goes", act: () => ask("often", "Rest goes") },
    { letter: "b", words: "round bends", act: () => ask("travel", "Round bends") },
    { letter: "t", words: "turn", act: () => ask("travel", "Turn") },
    { letter: "f", words: "facing", act: () => ask("travel", "Facing") },
    { letter: "m", words: "mirror", act: () => ask("travel", "Mirror") },
    { letter: "h", words: "side shift", act: () => ask("travel", "Side shift") },
    { letter: "v", words: "variants", act: () => ask("next", "Variants") },
    { letter: "w", words: "rows", act: () => ask("next", "Rows beside the line") },
    { letter: "c", words: "corners", act: () => ask("ends", "Corner from") },
    { letter: "n", words: "dark ground", act: () => ground.set(night ? "light" : "dark") },
    { letter: "k", words: "keep aside, or let go of it", act: () => setAside(aside ? null : edit.kept) },
    { letter: "l", words: "width along the line", act: () => ask("hand", "Taper at the start") },
    { letter: "j", words: "what counts as a fault", act: () => ask("joins", "Gap from") },
  ]);
  useWindowKey("keydown", (event) => {
    if (isTyping(event)) return;
    if (event.key === "`") setComparing(true);
    if (event.key === "Escape" && large) setLarge(null);
  });
  useWindowKey("keyup", (event) => event.key === "`" && setComparing(false));

  const flat = laid?.scenes.find((s) => s.key === "flat");
  const trials = useMemo(() => laid?.scenes.filter((s) => s.key !== "flat" && !s.key.startsWith(ASIDE)) ?? [], [laid]);
  const beside = useMemo(
    () => new Map(laid?.scenes.filter((s) => s.key.startsWith(ASIDE)).map((s) => [s.key.slice(ASIDE.length), s])),
    [laid],
  );
  const present = usePresent(
    pinned,
    laid?.of.pinned ?? [],
    trials.flatMap((t) => t.pinned ?? []),
  );
  const asks = useMemo(
    () => (
      <>
        <PinMenu pages={pages} pinned={present} onPin={setPinned} />
        {aside ? (
          <>
            <button
              className="plain-button px-1.5 py-0"
              disabled={sameSettings(aside, edit.kept)}
              onClick={() => edit.set(aside, "what was kept aside")}
            >
              take it back
            </button>
            <button className="plain-button px-1.5 py-0" title="q k" onClick={() => setAside(null)}>
              let go
            </button>
          </>
        ) : (
          <button
            className="plain-button px-1.5 py-0"
            title="Keep these settings aside and see both on all trial lines (q k)"
            onClick={() => setAside(edit.kept)}
          >
            Keep aside
          </button>
        )}
      </>
    ),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the edit's hands change with the brush; a drag must not draw the sheet again
    [pages, present, aside, edit.kept],
  );
  // what is in the hand shows together with its picture, so a drag paints one frame a step; words set by
  // key or typing do not wait, for keys step on from what they say
  const shown = laid?.of.settings ?? settings;
  const said = edit.inHand ? shown : settings;
  const opened = trials.find((s) => s.key === large);
  return (
    <div className="flex h-full flex-col">
      <section
        ref={flatBox}
        aria-label="Flat run"
        className={`relative h-[288px] shrink-0 border-b [contain:strict] border-rule ${ground.weave} ${night ? "text-white" : ""}`}
        style={ground.style}
      >
        {flat && header && (
          <FlatRun
            scene={flat}
            motifs={motifs}
            header={header}
            scale={scale}
            size={flatSize}
            settings={shown}
            edit={edit}
            ground={ground}
            comparing={comparing}
          />
        )}
      </section>
      <div className="flex min-h-0 flex-1">
        <section aria-label="Trial lines" className="flex min-w-0 flex-1 flex-col px-4 pt-2 pb-3 [contain:strict]">
          {opened && header ? (
            <TrialLarge
              scene={opened}
              asked={shaped[opened.key]}
              motifs={motifs}
              box={opened.box ?? header.trial_box}
              ground={ground}
              cured={cured}
              edit={edit}
              settings={shown}
              onBack={() => setLarge(null)}
              onShape={(points) => setShaped((now) => withPoints(now, opened.key, points))}
            />
          ) : (
            <TrialSheet
              trials={trials}
              beside={beside}
              motifs={motifs}
              box={header?.trial_box ?? SHEET}
              ground={ground}
              onOpen={setLarge}
              step={step}
              onStep={setStep}
            >
              {asks}
            </TrialSheet>
          )}
        </section>
        <section
          aria-label="This brush, in words"
          className="w-[428px] shrink-0 [contain:strict] overflow-y-auto border-l border-rule px-4 pt-2 pb-3"
        >
          {refusal && (
            <p role="alert" className="mb-2 border border-madder bg-madder-wash px-3 py-1.5">
              {refusal[0].toUpperCase() + refusal.slice(1)}. The last good picture stays.
            </p>
          )}
          <Words
            edit={edit}
            settings={said}
            header={header}
            motifs={repeats}
            pieces={brush.pieces}
            question={question}
            onAsk={setQuestion}
          />
        </section>
      </div>
    </div>
  );
}

/** Moved points of trial lines with one line's set, or put back as it stands. */
function withPoints(
  shaped: Record<string, SheetPoint[]>,
  key: string,
  points: SheetPoint[] | null,
): Record<string, SheetPoint[]> {
  const next = { ...shaped };
  if (points) next[key] = points;
  else delete next[key];
  return next;
}

const ASIDE = "aside ";
const SHEET: [number, number] = [100, 70];

/** The pinned lines but those that were asked for and did not come, for they are deleted; undone, they are there again. */
function usePresent(pinned: number[], asked: number[], come: number[]): number[] {
  const gone = asked.filter((line) => !come.includes(line)).join(" ");
  return useMemo(() => pinned.filter((line) => !gone.split(" ").includes(String(line))), [pinned, gone]);
}
