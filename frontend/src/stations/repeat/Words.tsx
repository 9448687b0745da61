import { memo, type ReactNode } from "react";
import type { Brush, Motif, Settings } from "../../shared/api/client";
import { go } from "../../shared/ui/place";
import { EndsQuestion } from "./EndsQuestion";
import { NextQuestion } from "./NextQuestion";
import { OftenQuestion } from "./OftenQuestion";
import { TravelQuestion } from "./TravelQuestion";
import { HandQuestion } from "./HandQuestion";
import { JoinsQuestion } from "./JoinsQuestion";
import { sameShown } from "./sameShown";
import type { BenchHeader, Question } from "./types";
import type { BrushEdit } from "./useBrushEdit";

interface Props {
  edit: BrushEdit;
  settings: Settings;
  header: BenchHeader | undefined;
  motifs: Motif[];
  pieces: Brush["pieces"];
  question: Question;
  onAsk: (question: Question) => void;
}

const KIND: Record<string, string> = {
  repeated: "repeated",
  once_length: "once, length only",
  once_proportion: "once, in proportion",
};
const ORDER = { in_turn: "in turn", shuffled: "shuffled", chance: "by chance", no_twin: "never a twin" } as const;
const FACING = { line: "along the line", page: "level with the page", start: "as at the start" } as const;
const MIRROR = {
  off: "not mirrored",
  up_down: "mirrored up–down",
  left_right: "mirrored left–right",
  every_second: "every second one mirrored",
} as const;
const EASE = {
  leave: "is left",
  gaps: "goes into the gaps",
  size: "goes into the size",
  length: "goes into the length",
} as const;
const REST = { end: "at the end", both: "at both ends", start: "at the start" } as const;
const CORNERS: Record<string, string> = {
  through: "runs through",
  butt: "ends at",
  round: "goes round",
  mitre: "mitres",
  lap: "laps at",
  piece: "has an own piece at",
};

/** What the width does along the line; nothing where it is one all along. */
function handWords({ hand }: Settings): string | null {
  const tapered = (hand?.taper_start_mm ?? 0) > 0 || (hand?.taper_end_mm ?? 0) > 0;
  const thick = (hand?.width_along?.length ?? 0) > 0;
  return thick ? (tapered ? "goes thick and thin and tapers" : "goes thick and thin") : tapered ? "tapers at the ends" : null;
}

/** The brush as one short text; an underlined word opens the question it answers. */
export const Words = memo(WordsNow, sameShown(["settings", "header", "motifs", "pieces", "question"]));

function WordsNow({ edit, settings, header, motifs, pieces, question, onAsk }: Props) {
  const [motif] = motifs;
  const { travel, spacing, ends, variants, rows } = settings;
  const word = (which: Question, text: ReactNode) => (
    <button className="thread-word" aria-expanded={question === which} onClick={() => onAsk(which)}>
      {text}
    </button>
  );
  const shift = travel.side_shift_mm ?? 0;
  return (
    <>
      <h2 className="mb-1 text-[15px]">This brush, in words</h2>
      <p className="leading-[1.6]" data-testid="words">
        {motifs.length > 1 ? (
          <>
            {motifs.length} motifs {word("next", ORDER[variants.order ?? "in_turn"])}, {motif.name} first,{" "}
          </>
        ) : (
          `${motif.name} `
        )}
        {word("travel", KIND[travel.kind ?? "repeated"])} along the line,{" "}
        {word("travel", `${travel.kind === "repeated" ? travel.round_bends : "bent"} at bends`)}
        {(travel.round_bends ?? "rigid") === "rigid" && <>, facing {word("travel", FACING[travel.facing ?? "line"])}</>}, turned{" "}
        {word("travel", `${travel.turn_deg}°`)}, {word("travel", MIRROR[travel.mirror ?? "off"])},{" "}
        {word("travel", shift ? `${Math.abs(shift)} mm to the ${shift > 0 ? "right" : "left"}` : "on the line")}. Every{" "}
        {word("often", header ? `${header.pitch_mm.toFixed(2)} mm` : "…")} at{" "}
        {word("often", `${Number((spacing.size_pct ?? 100).toFixed(1))} %`)} size; what is left over{" "}
        {word("often", EASE[spacing.ease ?? "leave"])}
        {spacing.ease !== "leave" && <> by at most {word("often", `${spacing.ease_limit_pct} %`)}</>}
        {spacing.ease === "leave" && <> {word("often", REST[spacing.rest ?? "end"])}</>}. It{" "}
        {word("ends", CORNERS[ends.outside_corner ?? "through"])} outside corners and{" "}
        {word("ends", CORNERS[ends.inside_corner ?? "through"])} inside corners of {word("ends", `${ends.corner_from_deg}°`)} and
        more.{" "}
        {(rows?.beside_mm?.length ?? 0) > 0 && <>It lies in {word("next", `${(rows?.beside_mm?.length ?? 0) + 1} rows`)}. </>}
        {handWords(settings) && <>Its width {word("hand", handWords(settings)!)}. </>}The motif’s{" "}
        <button className="thread-word" onClick={() => go("motif", motif.id)}>
          own colours
        </button>
        .
      </p>
      <nav aria-label="Questions" className="mt-1.5 flex flex-wrap gap-x-4 gap-y-0.5 text-[12.5px] whitespace-nowrap">
        {(
          [
            ["travel", "How does it travel?"],
            ["often", "How often?"],
            ["ends", "At ends and corners?"],
            ["next", "Which one next?"],
            ["hand", "What does the hand do?"],
            ["joins", "What is a fault?"],
          ] as const
        ).map(([which, text]) => (
          <button
            key={which}
            className={`min-h-6 ${question === which ? "font-semibold" : "text-moss hover:text-loden"}`}
            aria-pressed={question === which}
            onClick={() => onAsk(which)}
          >
            {text}
          </button>
        ))}
      </nav>
      <div className="mt-1.5 border-l-[3px] border-madder bg-work px-4 py-2">
        {question === "travel" && <TravelQuestion edit={edit} settings={settings} />}
        {question === "often" && <OftenQuestion edit={edit} settings={settings} header={header} />}
        {question === "next" && <NextQuestion edit={edit} settings={settings} pieces={pieces} />}
        {question === "ends" && <EndsQuestion edit={edit} settings={settings} pieces={pieces} />}
        {question === "hand" && <HandQuestion edit={edit} settings={settings} />}
        {question === "joins" && <JoinsQuestion edit={edit} settings={settings} />}
      </div>
    </>
  );
}
