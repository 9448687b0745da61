interface Props {
  label: string;
  /** What it is called to have none. */
  none: string;
  value: string | null;
  onSet: (ink: string | null) => void;
}

const FIRST = "#2c4a84"; // where a colour is first looked for

/** An ink, or none. */
export function InkField({ label, none, value, onSet }: Props) {
  return (
    <span className="flex items-center gap-1.5 text-[12.5px]">
      <span className="text-moss">{label}</span>
      <button
        aria-label={`${label}: ${none}`}
        aria-pressed={value === null}
        className="min-h-6 border-b-2 border-transparent aria-pressed:border-madder aria-pressed:font-semibold"
        onClick={() => onSet(null)}
      >
        {none}
      </button>
      <input
        type="color"
        aria-label={`${label}, a colour`}
        value={value ?? FIRST}
        className={`h-[22px] w-[30px] ${value ? "outline-2 outline-madder" : "opacity-60"}`}
        onChange={(event) => onSet(event.target.value)}
      />
    </span>
  );
}
