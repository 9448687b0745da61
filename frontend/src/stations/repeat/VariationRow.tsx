import { EndNumber } from "./EndNumber";
import { EndsBar } from "./EndsBar";
import { following, PROPERTIES, SOURCES, type Source, type Variation } from "./variations";

interface Props {
  variation: Variation;
  open: boolean;
  onOpen: () => void;
  onDrag: (next: Variation) => void;
  onSet: (next: Variation, label: string) => void;
  onRemove: () => void;
}

/** What varies, in a row: the property, its two values with a bar between them, and what it follows. */
export function VariationRow({ variation, open, onOpen, onDrag, onSet, onRemove }: Props) {
  const { word, unit, from, to, step } = PROPERTIES[variation.of];
  const [a, b] = variation.between;
  const follows = variation.follows ?? "chance";
  const between = (next: [number, number]): Variation => ({ ...variation, between: next });
  const set = (next: [number, number]): void => onSet(between(next), `${word} ${next[0]} to ${next[1]} ${unit}`.trim());
  return (
    <div role="group" aria-label={word} className="flex items-center gap-1.5 text-[12.5px]">
      <button
        aria-expanded={open}
        title="Its course and how it is gathered"
        className="w-[66px] shrink-0 truncate text-left font-semibold aria-expanded:text-madder"
        onClick={onOpen}
      >
        {word}
      </button>
      <EndNumber label={`${word} from`} of={variation.of} value={a} step={step} onSet={(next) => set([next, b])} />
      <EndsBar label={word} value={[a, b]} {...{ from, to, step }} onDrag={(next) => onDrag(between(next))} onSet={set} />
      <EndNumber label={`${word} to`} of={variation.of} value={b} step={step} onSet={(next) => set([a, next])} />
      <span className="w-[12px] text-moss">{unit}</span>
      <select
        aria-label={`${word} follows`}
        value={follows}
        className="w-[98px] border-b border-rule bg-transparent"
        onChange={(event) => {
          const next = event.target.value as Source;
          onSet(following(variation, next), `${word} ${SOURCES[next]?.words}`);
          if (SOURCES[next]?.over && !open) onOpen(); // how far it goes is asked next
        }}
      >
        {Object.entries(SOURCES).map(([source, { words }]) => (
          <option key={source} value={source}>
            {words}
          </option>
        ))}
      </select>
      <button
        aria-label={`Leave ${word} as it is`}
        title="no longer varied"
        className="px-1 text-[15px] leading-none text-moss hover:text-madder"
        onClick={onRemove}
      >
        ×
      </button>
    </div>
  );
}
