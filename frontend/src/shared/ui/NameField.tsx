import { useState } from "react";
import { flushSync } from "react-dom";

interface Props {
  label: string;
  name: string;
  className: string;
  onRename: (name: string) => void;
}

/** The name of a thing, changed where it stands: Enter or leaving the field takes it, Escape or an empty one brings back what was. */
export function NameField({ label, name, className, onRename }: Props) {
  const [{ of, typed }, set] = useState({ of: name, typed: name });
  const setTyped = (text: string): void => set({ of: name, typed: text });
  if (of !== name) setTyped(name); // renamed elsewhere, or a step was undone
  const take = (): void => {
    const next = typed.trim();
    if (next && next !== name) onRename(next);
    else setTyped(name);
  };
  return (
    <input
      aria-label={label}
      value={typed}
      className={`border-b border-transparent font-display font-semibold hover:border-rule focus:border-loden ${className}`}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === "Enter") event.currentTarget.blur();
        if (event.key !== "Escape") return;
        event.stopPropagation();
        flushSync(() => setTyped(name)); // it holds what was before it is left
        event.currentTarget.blur();
      }}
    />
  );
}
