import { ToggleGroup } from "radix-ui";
import type { ReactNode } from "react";

const OPTION =
  "border-b-2 border-transparent py-0.5 text-center data-[state=on]:border-madder data-[state=on]:font-semibold " +
  "hover:border-rule data-[state=on]:hover:border-madder";

interface Option<T extends string> {
  value: T;
  label: string;
  picture?: ReactNode;
}

interface Props<T extends string> {
  label: string;
  value: T;
  options: Option<T>[];
  onSet: (value: T) => void;
  /** Six or more fit in a row. */
  small?: boolean;
  /** The label stands beside the options. */
  side?: boolean;
  /** The label is there for those who do not see. */
  hidden?: boolean;
}

/** One of a few, each with a tiny picture of its effect; the chosen one is underlined by the live thread. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onSet,
  small = false,
  side = false,
  hidden = false,
}: Props<T>) {
  const tight = options.length > 6 ? "px-[3px]" : options.length > 5 ? "px-[1px]" : "px-1";
  return (
    <div className={small && side ? "flex min-w-0 items-center gap-1.5" : "min-w-0"}>
      {!hidden && <span className={`block text-[12.5px] text-moss ${small && side ? "w-[74px] shrink-0" : ""}`}>{label}</span>}
      <ToggleGroup.Root
        type="single"
        aria-label={label}
        value={value}
        className={`flex flex-wrap gap-y-1 ${small ? "" : "gap-x-1"}`}
        onValueChange={(next) => next && onSet(next as T)}
      >
        {options.map((option) => (
          <ToggleGroup.Item
            key={option.value}
            value={option.value}
            className={`${OPTION} ${small ? `${tight} text-[12px] tracking-tight` : "px-1.5"}`}
          >
            {option.picture && (
              <span
                className={`mx-auto block ${small ? (options.length > 6 ? "w-[44px] [&>svg]:w-[44px]" : "w-[50px] [&>svg]:w-[50px]") : ""}`}
              >
                {option.picture}
              </span>
            )}
            {option.label}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </div>
  );
}
