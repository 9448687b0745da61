import { useNumber } from "../../shared/ui/useNumber";
import type { Property } from "./variations";

interface Props {
  label: string;
  of: Property;
  value: number;
  step: number;
  onSet: (value: number) => void;
}

/** The number at one end of a bar: typed, or stepped with the arrow keys. */
export function EndNumber({ label, of, value, step, onSet }: Props) {
  const { text, wrong, field } = useNumber({ value, unit: "", limitsOf: `variations.${of}`, step, onSet });
  return (
    <span className="relative">
      <input
        aria-label={label}
        aria-invalid={wrong !== null}
        inputMode="decimal"
        autoComplete="off"
        value={text}
        className="w-[38px] border-b border-loden bg-transparent text-right font-semibold aria-invalid:border-madder"
        onFocus={(event) => event.target.select()}
        {...field}
      />
      {wrong && (
        <span role="alert" className="absolute top-full left-0 z-20 w-[220px] bg-work text-[12px] text-madder">
          {wrong}
        </span>
      )}
    </span>
  );
}
