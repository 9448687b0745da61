import type { KeyboardEvent } from "react";

/** What a motif that is being made will be called; Enter and Escape leave the field. */
export function NewName({
  value,
  onChange,
  className = "",
}: {
  value: string;
  onChange: (name: string) => void;
  className?: string;
}) {
  const leave = (event: KeyboardEvent<HTMLInputElement>): void => {
    if (event.key === "Enter" || event.key === "Escape") event.currentTarget.blur();
  };
  return (
    <input
      aria-label="Name of the new motif"
      className={`border-b-[1.5px] border-loden ${className}`}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      onKeyDown={leave}
    />
  );
}
