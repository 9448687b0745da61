interface Props {
  label: string;
  value: string;
  onDrag?: (colour: string) => void;
  onSet: (colour: string) => void;
}

/** A colour with its name before it. */
export function ColourField({ label, value, onDrag, onSet }: Props) {
  return (
    <label className="flex items-center gap-1.5 text-[12.5px] text-moss">
      {label}
      <input
        type="color"
        aria-label={label}
        value={value}
        className="h-[26px] w-[40px] cursor-pointer border border-rule bg-work p-0.5"
        onInput={(event) => onDrag?.(event.currentTarget.value)}
        onChange={(event) => onSet(event.target.value)}
      />
    </label>
  );
}
