import { Choice } from "../../shared/ui/Choice";
import { go } from "../../shared/ui/place";
import { NumberField } from "../../shared/ui/NumberField";
import { CORNER_PICTURES } from "./pictures/corners";
import { useOpenBench, useSaid } from "./openBench";

const ROLE_WORDS = [
  ["start", "start piece"],
  ["end", "end piece"],
  ["outside_corner", "outside corner piece"],
  ["inside_corner", "inside corner piece"],
] as const;

export function EndsQuestion() {
  const { edit, settings, bound } = useSaid();
  const { pieces } = useOpenBench().brush;
  const missing = ROLE_WORDS.filter(([role]) => !pieces[role]).map(([, words]) => words);
  const corner = (key: "outside_corner" | "inside_corner", label: string) => (
    <Choice
      small
      label={label}
      value={settings.ends[key] ?? "through"}
      options={[
        { value: "through", label: "run through", picture: CORNER_PICTURES.through },
        { value: "round", label: "round", picture: CORNER_PICTURES.round },
        { value: "mitre", label: "mitre", picture: CORNER_PICTURES.mitre },
        { value: "lap", label: "lap", picture: CORNER_PICTURES.lap },
        { value: "butt", label: "butt", picture: CORNER_PICTURES.butt },
        ...(pieces[key] ? [{ value: "piece" as const, label: "own piece", picture: CORNER_PICTURES.piece }] : []),
      ]}
      onSet={(style) =>
        edit.set({ ends: { [key]: style } }, `${label.toLowerCase()}: ${style === "through" ? "run through" : style}`)
      }
    />
  );
  return (
    <>
      <div className="mb-2 flex flex-col gap-2">
        {corner("outside_corner", "Outside corner")}
        {corner("inside_corner", "Inside corner")}
      </div>
      <div className="flex gap-8">
        <NumberField
          compact
          label="Corner from"
          step={5}
          standard={30}
          {...bound("ends", "corner_from_deg", "corner from", "°")}
        />
        <NumberField
          compact
          label="Round radius"
          step={0.5}
          standard={5}
          {...bound("ends", "round_radius_mm", "round radius", "mm")}
        />
      </div>
      <p className="mt-1.5 text-[12.5px] text-moss">
        {missing.length ? `No ${missing.join(", ")} yet: ` : "All pieces are there: "}
        <button className="thread-word" onClick={() => go("motif", pieces.repeat[0])}>
          {missing.length ? "make one on the sampler" : "see them on the sampler"}
        </button>
        .
      </p>
    </>
  );
}
