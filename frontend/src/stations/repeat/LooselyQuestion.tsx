import { Fragment, useState } from "react";
import { NumberField } from "../../shared/ui/NumberField";
import { useSaid } from "./openBench";
import { DealTray } from "./DealTray";
import { VariationMore } from "./VariationMore";
import { VariationRow } from "./VariationRow";
import { offered, PROPERTIES, started, type Variation } from "./variations";

/** How loosely pieces lie: what varies of them, a row each, and what else may. */
export function LooselyQuestion() {
  const { settings, edit, bound } = useSaid();
  const [open, setOpen] = useState<number | null>(null);
  const [dealing, setDealing] = useState(false);
  const own = settings.variations ?? [];
  const put = (at: number, next: Variation | null): Variation[] =>
    own.flatMap((each, i) => (i !== at ? [each] : next ? [next] : []));
  const rest = offered(settings);
  if (dealing && own.length) return <DealTray onClose={() => setDealing(false)} />;
  return (
    <div role="group" aria-label="What varies" className="flex flex-col gap-1">
      {own.map((variation, i) => (
        <Fragment key={`${variation.of} ${i}`}>
          <VariationRow
            variation={variation}
            open={open === i}
            onOpen={() => setOpen(open === i ? null : i)}
            onDrag={(next) => edit.drag({ variations: put(i, next) })}
            onSet={(next, label) => edit.set({ variations: put(i, next) }, label)}
            onRemove={() => {
              setOpen(null);
              edit.set({ variations: put(i, null) }, `${PROPERTIES[variation.of].word} as it is`);
            }}
          />
          {open === i && (
            <VariationMore variation={variation} onSet={(next, label) => edit.set({ variations: put(i, next) }, label)} />
          )}
        </Fragment>
      ))}
      {rest.length > 0 && (
        <p className="leading-[1.7] text-[12.5px]">
          <span className="text-moss">{own.length ? "vary too: " : "All pieces are alike. Vary: "}</span>
          {rest.map((of) => (
            <button
              key={of}
              className="thread-word mr-2"
              onClick={() => edit.set({ variations: [...own, started(of)] }, `${PROPERTIES[of].word} by chance`)}
            >
              {PROPERTIES[of].word}
            </button>
          ))}
        </p>
      )}
      {own.length > 0 && (
        <div className="flex items-baseline gap-2 text-[12.5px] whitespace-nowrap">
          <NumberField compact label="Keep apart" standard={0} {...bound("looseness", "keep_apart_mm", "keep apart", "mm")} />
          <span className="ml-1 text-moss">
            Arrangement{" "}
            <span className="font-semibold text-loden" data-testid="arrangement">
              {settings.variants?.arrangement ?? 1}
            </span>
          </span>
          <button
            className="plain-button px-1.5 py-0 whitespace-nowrap"
            onClick={() => {
              const arrangement = (settings.variants?.arrangement ?? 1) + 1;
              edit.set({ variants: { arrangement } }, `arrangement ${arrangement}`);
            }}
          >
            Deal again
          </button>
          <button className="plain-button px-1.5 py-0 whitespace-nowrap" onClick={() => setDealing(true)}>
            See twelve
          </button>
        </div>
      )}
    </div>
  );
}
