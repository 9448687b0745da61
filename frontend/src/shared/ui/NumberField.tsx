import { useId } from "react";
import { useNumber, type NumberSetting } from "./useNumber";

interface Props extends NumberSetting {
  label: string;
  standard?: number;
  /** Label, figure and unit in one line. */
  compact?: boolean;
  /** Its unit is pressed to have the number in another. */
  onUnit?: () => void;
}

/**
 * A number that can be typed with units and sums, stepped with the arrow keys or dragged sideways
 * on its label. A double press of the label brings the standard back, Escape what was there.
 */
export function NumberField({ label: words, standard, compact = false, onUnit, ...setting }: Props) {
  const id = useId();
  const { text, wrong, field, label } = useNumber(setting);
  const { unit, onSet } = setting;
  const room = compact ? "w-[46px]" : "w-[72px] text-[16px]";
  return (
    <div className={compact ? "flex min-w-0 items-baseline gap-1.5" : "min-w-0"}>
      <label
        htmlFor={id}
        title="Drag sideways to change, double press for the standard"
        className={`block cursor-ew-resize touch-none text-[12.5px] text-moss select-none ${compact ? "whitespace-nowrap" : ""}`}
        onDoubleClick={() => standard !== undefined && onSet(standard)}
        {...label}
      >
        {words}
      </label>
      <span className="flex items-baseline gap-1">
        <input
          id={id}
          value={text}
          inputMode="decimal"
          autoComplete="off"
          aria-invalid={wrong !== null}
          aria-describedby={wrong ? `${id}-why` : undefined}
          className={`border-b-[1.5px] border-loden bg-transparent font-semibold aria-invalid:border-madder ${room}`}
          onFocus={(event) => event.target.select()}
          {...field}
        />
        {onUnit ? (
          <button
            className="thread-word min-w-6 text-moss"
            title="Press for the other unit"
            aria-label={`${words} in ${unit}`}
            onClick={onUnit}
          >
            {unit}
          </button>
        ) : (
          <span className={compact ? "text-[12.5px] text-moss" : "text-moss"}>{unit}</span>
        )}
      </span>
      {wrong && (
        <span id={`${id}-why`} role="alert" className="block text-[12px] text-madder">
          {wrong}
        </span>
      )}
    </div>
  );
}
