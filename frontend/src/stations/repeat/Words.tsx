import { Fragment, memo, type ReactNode } from "react";
import { go } from "../../shared/ui/place";
import { useBench } from "./bench";
import { useLaidBench, useOpenBench } from "./openBench";
import { Questions } from "./Questions";
import { PitchWord, SettingWord } from "./SettingWords";
import type { Question } from "./types";
import { looseWords, mirroring } from "./variations";
import { CORNERS, EASE, FACING, handWords, inkWords, KIND, MIRROR, ORDER, REST } from "./wordsOf";

const TO_COME = "\u2007\u2007…\u2007\u2007 mm"; // as wide as a pitch, so that nothing below moves when that is known

/** The brush as one short text; an underlined word opens the question it answers. */
export const Words = memo(function Words() {
  return (
    <>
      <h2 className="mb-1 text-[15px]">This brush, in words</h2>
      <Sentence />
      <Questions />
    </>
  );
});

function Sentence() {
  const { repeats: motifs } = useOpenBench();
  const { header, said } = useLaidBench();
  const question = useBench((bench) => bench.question);
  const ask = useBench((bench) => bench.ask);
  const [motif] = motifs;
  const { travel, spacing, ends, variants, rows } = said;
  const word = (which: Question, text: ReactNode) => (
    <button className="thread-word" aria-expanded={question === which} onClick={() => ask(which)}>
      {text}
    </button>
  );
  const once = travel.kind === "once_length" || travel.kind === "once_proportion";
  const links = travel.round_bends === "jointed" && travel.kind === "repeated";
  const shift = travel.side_shift_mm ?? 0;
  return (
    <p className="leading-[1.6]" data-testid="words">
      {motifs.length > 1 ? (
        <>
          {motifs.length} motifs {word("next", ORDER[variants.order ?? "in_turn"])}, {motif.name} first,{" "}
        </>
      ) : (
        `${motif.name} `
      )}
      {word("travel", KIND[travel.kind ?? "repeated"])} along the line,{" "}
      {word("travel", `${once ? "bent" : travel.round_bends} at bends`)}
      {(travel.round_bends ?? "rigid") === "rigid" && <>, facing {word("travel", FACING[travel.facing ?? "line"])}</>}, turned{" "}
      <SettingWord which="travel" label="Turn" section="travel" setting="turn_deg" unit="°" />,{" "}
      {word("travel", MIRROR[mirroring(said)])},{" "}
      {word("travel", shift ? `${Math.abs(shift)} mm to the ${shift > 0 ? "right" : "left"}` : "on the line")}. Every{" "}
      {header && !links ? <PitchWord /> : word("often", header ? `${header.pitch_mm.toFixed(2)} mm` : TO_COME)} at{" "}
      <SettingWord which="often" label="Size" section="spacing" setting="size_pct" unit="%" /> size
      {travel.kind !== "scattered" && (
        <>
          ; what is left over {word("often", EASE[spacing.ease ?? "leave"])}
          {spacing.ease !== "leave" && (
            <>
              {" "}
              by at most <SettingWord which="often" label="Ease limit" section="spacing" setting="ease_limit_pct" unit="%" />
            </>
          )}
          {spacing.ease === "leave" && <> {word("often", REST[spacing.rest ?? "end"])}</>}. It{" "}
          {word("ends", CORNERS[ends.outside_corner ?? "through"])} outside corners and{" "}
          {word("ends", CORNERS[ends.inside_corner ?? "through"])} inside corners of{" "}
          <SettingWord which="ends" label="Corner from" section="ends" setting="corner_from_deg" unit="°" /> and more
        </>
      )}
      . {(rows?.beside_mm?.length ?? 0) > 0 && <>It lies in {word("next", `${(rows?.beside_mm?.length ?? 0) + 1} rows`)}. </>}
      {looseWords(said) && <>Loosely: {word("loosely", looseWords(said)!)}. </>}
      {inkWords(said).map((text) => (
        <Fragment key={text}>{word("colour", `${text[0].toUpperCase()}${text.slice(1)}`)}. </Fragment>
      ))}
      {handWords(said) && <>Its width {word("hand", handWords(said)!)}. </>}The motif’s{" "}
      <button className="thread-word" onClick={() => go("motif", motif.id)}>
        own colours
      </button>
      .
    </p>
  );
}
