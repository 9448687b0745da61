import { useBench } from "./bench";
import { ColourQuestion } from "./ColourQuestion";
import { EndsQuestion } from "./EndsQuestion";
import { HandQuestion } from "./HandQuestion";
import { JoinsQuestion } from "./JoinsQuestion";
import { LooselyQuestion } from "./LooselyQuestion";
import { NextQuestion } from "./NextQuestion";
import { OftenQuestion } from "./OftenQuestion";
import { TravelQuestion } from "./TravelQuestion";
import type { Question } from "./types";

const ASKED: [Question, string, () => React.ReactNode][] = [
  ["travel", "How does it travel?", TravelQuestion],
  ["often", "How often?", OftenQuestion],
  ["ends", "At ends and corners?", EndsQuestion],
  ["loosely", "How loosely?", LooselyQuestion],
  ["next", "Which one next?", NextQuestion],
  ["colour", "What colour?", ColourQuestion],
  ["hand", "What does the hand do?", HandQuestion],
  ["joins", "What is a fault?", JoinsQuestion],
];

/** The questions that a brush answers, and the open one with its fields. */
export function Questions() {
  const question = useBench((bench) => bench.question);
  const ask = useBench((bench) => bench.ask);
  const [, , Open] = ASKED.find(([which]) => which === question)!;
  return (
    <>
      <nav aria-label="Questions" className="mt-1 flex flex-wrap gap-x-[11px] text-[12px] whitespace-nowrap">
        {ASKED.map(([which, text]) => (
          <button
            key={which}
            className={`min-h-6 ${question === which ? "font-semibold" : "text-moss hover:text-loden"}`}
            aria-pressed={question === which}
            onClick={() => ask(which)}
          >
            {text}
          </button>
        ))}
      </nav>
      <div className="mt-1 border-l-[3px] border-madder bg-work px-3 py-1.5">
        <Open />
      </div>
    </>
  );
}
