import { NumberField } from "../../shared/ui/NumberField";
import { EndPicture } from "./EndPicture";
import { ResponseCurve } from "./ResponseCurve";
import { PROPERTIES, SOURCES, type Variation } from "./variations";

interface Props {
  variation: Variation;
  onSet: (next: Variation, label: string) => void;
}

/** More of one that varies: over how much its source goes, how chance is gathered, and the course between its values. */
export function VariationMore({ variation, onSet }: Props) {
  const { word } = PROPERTIES[variation.of];
  const follows = variation.follows ?? "chance";
  const over = SOURCES[follows]?.over;
  return (
    <div className="flex items-center gap-4 border-l-2 border-rule pl-3">
      <ResponseCurve
        label={`Course of ${word}`}
        points={variation.response ?? null}
        onSet={(response) => onSet({ ...variation, response }, `course of ${word}`)}
      />
      <div className="flex flex-col gap-1">
        {variation.between.map((value, end) => (
          <EndPicture key={end} variation={variation} value={value} />
        ))}
      </div>
      <div className="flex flex-col gap-1">
        {follows === "chance" && (
          <NumberField
            compact
            label="Gathered"
            unit="%"
            step={10}
            standard={0}
            value={variation.gather_pct ?? 0}
            limitsOf="variations.gather_pct"
            onSet={(gather_pct) => onSet({ ...variation, gather_pct }, `${word} gathered ${gather_pct} %`)}
          />
        )}
        {over && (
          <NumberField
            compact
            label={over[0] === "of" ? "Turns of" : "Over"}
            unit={over[1]}
            step={over[1] === "mm" ? 10 : 1}
            standard={over[2]}
            value={variation.over ?? over[2]}
            limitsOf={`variations.over.${follows}`}
            onSet={(next) => onSet({ ...variation, over: next }, `${word} over ${next} ${over[1]}`)}
          />
        )}
        <button
          className="plain-button self-start px-1.5 py-0"
          onClick={() => {
            const [a, b] = variation.between;
            onSet({ ...variation, between: [b, a] }, `${word} the other way`);
          }}
        >
          The other way
        </button>
      </div>
    </div>
  );
}
