import { Dialog } from "radix-ui";
import { keepNewFocus, lettersNow, useKeys } from "../shared/ui/keys";

const GENERAL: [string, string][] = [
  ["1 – 4", "Motif, Repeat, Page, Shelf"],
  ["q, then a letter", "a setting or an action of this screen"],
  ["q q", "letters on every button and field: type them to go there"],
  ["Ctrl+Z, Ctrl+Shift+Z", "undo, redo"],
  [". and Enter", "next finding, take its first cure"],
  ["` held", "see the brush before the last change"],
  ["arrow keys", "step a number, Shift for tens; move what is chosen"],
  ["Escape", "leave a drawing or a field as it was"],
];

const SHEET = "fixed top-1/2 left-1/2 -translate-x-1/2 -translate-y-1/2";
const BAR = "fixed bottom-0 left-0 z-30 whitespace-nowrap";

/** The letters offered after q, shown while the app waits for one. */
export function LettersBar() {
  const waiting = useKeys((s) => s.waiting);
  if (!waiting) return null;
  const actions = [...lettersNow(), { letter: "q", words: "letters on everything" }];
  return (
    <div role="status" className={`${BAR} flex w-full flex-wrap gap-x-5 gap-y-1.5 border-t border-rule bg-work px-5 py-2`}>
      {actions.map((a) => (
        <span key={a.letter}>
          <kbd className="mr-1.5 rounded-sm border border-rule px-1.5 font-sans font-semibold">{a.letter}</kbd>
          {a.words}
        </span>
      ))}
    </div>
  );
}

export function KeySheet() {
  const { sheet, set } = useKeys();
  const letters = (sheet ? lettersNow() : []).map((a): [string, string] => [`q ${a.letter}`, a.words]);
  return (
    <Dialog.Root modal={false} open={sheet} onOpenChange={(open) => set({ sheet: open })}>
      <Dialog.Portal>
        <Dialog.Content
          onCloseAutoFocus={keepNewFocus}
          aria-describedby={undefined}
          className={`${SHEET} z-50 max-h-[94vh] w-[860px] overflow-y-auto border border-loden bg-work p-6 shadow-md`}
        >
          <Dialog.Title className="mb-3 text-[17px]">Keys</Dialog.Title>
          <div className="flex gap-8">
            <Rows columns="w-[380px] grid-cols-[150px_1fr]" rows={GENERAL} />
            <Rows columns="flex-1 grid-cols-[34px_1fr_34px_1fr]" rows={letters} />
          </div>
          <Dialog.Close className="plain-button mt-4">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Keys and what they do, as many pairs in a row as the columns say. */
function Rows({ columns, rows }: { columns: string; rows: [string, string][] }) {
  return (
    <dl className={`grid content-start gap-x-2 gap-y-1.5 ${columns}`}>
      {rows.map(([key, words]) => (
        <div key={key} className="contents">
          <dt className="font-semibold">{key}</dt>
          <dd>{words}</dd>
        </div>
      ))}
    </dl>
  );
}
