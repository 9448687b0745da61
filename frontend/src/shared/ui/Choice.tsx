import { ToggleGroup } from "radix-ui";
import type { ReactNode } from "react";

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
}

/** One of a few, each with a tiny picture of its effect; the chosen one is underlined by the live thread. */
export function Choice<T extends string>({ label, value, options, onSet }: Props<T>) {
  return (
    <div className="min-w-0">
      <span className="block text-[12.5px] text-moss">{label}</span>
      <ToggleGroup.Root type="single" aria-label={label} value={value} className="flex flex-wrap gap-x-1 gap-y-1" onValueChange={(next) => next && onSet(next as T)}>
        {options.map((option) => (
          <ToggleGroup.Item
            key={option.value}
            value={option.value}
            className="border-b-2 border-transparent px-1.5 py-0.5 text-center data-[state=on]:border-madder data-[state=on]:font-semibold hover:border-rule data-[state=on]:hover:border-madder"
          >
            {option.picture && <span className="mx-auto block">{option.picture}</span>}
            {option.label}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </div>
  );
}
