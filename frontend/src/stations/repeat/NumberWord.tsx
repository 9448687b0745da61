import { useState } from "react";
import { useNumber, type NumberSetting } from "../../shared/ui/useNumber";

interface Props extends NumberSetting {
  label: string;
  /** How the number reads in the text. */
  text: string;
  expanded: boolean;
  /** The question that it answers is opened with it. */
  onOpen: () => void;
}

/** A number in the brush's text: pressed it is a field where it stands, and the question that it answers opens. */
export function NumberWord({ label, text, expanded, onOpen, ...setting }: Props) {
  const [editing, setEditing] = useState(false);
  if (editing) return <Editing label={label} width={text.length} onDone={() => setEditing(false)} {...setting} />;
  return (
    <button
      className="thread-word"
      aria-expanded={expanded}
      onClick={() => {
        onOpen();
        setEditing(true);
      }}
    >
      {text}
    </button>
  );
}

function Editing({ label, width, onDone, ...setting }: NumberSetting & { label: string; width: number; onDone: () => void }) {
  const { text, wrong, field } = useNumber(setting);
  return (
    <span className="relative">
      <input
        autoFocus
        aria-label={`${label}, in the text`}
        aria-invalid={wrong !== null}
        inputMode="decimal"
        autoComplete="off"
        value={text}
        className="border-b-[1.5px] border-madder bg-transparent font-semibold text-madder outline-none"
        ref={(element) => element?.style.setProperty("width", `${Math.max(4, width, text.length + 1)}ch`)}
        onFocus={(event) => event.target.select()}
        {...field}
        onBlur={() => {
          field.onBlur();
          onDone();
        }}
      />
      {wrong && (
        <span role="alert" className="absolute top-full left-0 z-20 w-[220px] bg-work text-[12px] text-madder">
          {wrong}
        </span>
      )}
    </span>
  );
}
