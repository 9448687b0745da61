import { useBench } from "./bench";
import { NumberWord } from "./NumberWord";
import { useLaidBench, useSaid, type Section } from "./openBench";
import { gapAtPitch } from "./pitch";
import type { Question } from "./types";

/** Whether a question is open, and the hand that opens it. */
export function useAsking(which: Question) {
  const expanded = useBench((bench) => bench.question === which);
  const ask = useBench((bench) => bench.ask);
  return { expanded, onOpen: () => void (expanded || ask(which)) };
}

interface Props {
  which: Question;
  label: string;
  section: Section;
  setting: string;
  unit: "%" | "°";
}

/** A setting's number in the text. */
export function SettingWord({ which, label, section, setting, unit }: Props) {
  const { bound } = useSaid();
  const own = bound(section, setting, label.toLowerCase(), unit);
  const text = `${Number((own.value ?? 0).toFixed(1))}${unit === "%" ? " %" : unit}`;
  return <NumberWord label={label} text={text} {...useAsking(which)} {...own} />;
}

/** The pitch in the text: it sets the gap. */
export function PitchWord() {
  const { header } = useLaidBench();
  const { edit } = useSaid();
  const asking = useAsking("often");
  const set = (gap_pct: number): void => edit.set({ spacing: { gap_pct } }, `gap to ${gap_pct} %`);
  if (!header) return null;
  return (
    <NumberWord
      label="Pitch"
      text={`${header.pitch_mm.toFixed(2)} mm`}
      unit="mm"
      step={0.1}
      value={header.pitch_mm}
      onSet={(mm) => set(gapAtPitch(header, mm))}
      {...asking}
    />
  );
}
