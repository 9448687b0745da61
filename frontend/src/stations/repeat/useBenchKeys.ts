import { focusField, isTyping, pressNamed, presses, useLetters, useWindowKey } from "../../shared/ui/keys";
import { useBench } from "./bench";
import { useLaidBench, useOpenBench } from "./openBench";
import type { Question } from "./types";

/** The keys of the Repeat station: letters after q, the view as it was before while ` is held, Escape back from a large line. */
export function useBenchKeys(): void {
  const { brush, ground, hands } = useOpenBench();
  const { said } = useLaidBench();
  const { ask: open, keepAside, compare, open: enlarge } = useBench((bench) => bench);
  const aside = useBench((bench) => bench.aside);
  const large = useBench((bench) => bench.large);
  const ask = (which: Question, field: string): void => {
    open(which);
    focusField(field);
  };
  const deal = (): void => {
    const arrangement = (said.variants?.arrangement ?? 1) + 1;
    hands.set({ variants: { arrangement } }, `arrangement ${arrangement}`);
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
    { letter: "a", words: "how loosely", act: () => ask("loosely", "What varies") },
    { letter: "v", words: "variants", act: () => ask("next", "Variants") },
    { letter: "w", words: "rows", act: () => ask("next", "Rows beside the line") },
    { letter: "c", words: "corners", act: () => ask("ends", "Corner from") },
    { letter: "d", words: "deal again", act: deal },
    { letter: "n", words: "dark ground", act: () => ground.set(ground.night ? "light" : "dark") },
    { letter: "k", words: "keep aside, or let go of it", act: () => keepAside(aside ? null : brush.settings) },
    { letter: "i", words: "ink per piece", act: () => ask("colour", "Ink per piece") },
    { letter: "o", words: "laid on as", act: () => ask("colour", "Laid on as") },
    { letter: "l", words: "width along the line", act: () => ask("hand", "Taper at the start") },
    { letter: "j", words: "what counts as a fault", act: () => ask("joins", "Gap from") },
    presses("p", "pin a line", "Pin a line"),
    presses("x", "trial lines closer", "closer"),
    presses("y", "trial lines further", "further"),
    {
      letter: "z",
      words: "see twelve arrangements",
      act: () => (ask("loosely", "What varies"), pressNamed("See twelve") && focusField("Arrangements")),
    },
  ]);
  useWindowKey("keydown", (event) => {
    if (isTyping(event)) return;
    if (event.key === "`") compare(true);
    if (event.key === "Escape" && large && !event.defaultPrevented) enlarge(null);
  });
  useWindowKey("keyup", (event) => event.key === "`" && compare(false));
}
