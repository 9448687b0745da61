/** A triangle: something was found. */
export function Caution({ size = 14 }: { size?: number }) {
  return (
    <svg aria-hidden className="mt-[3px] shrink-0" width={size} height={size} viewBox="0 0 14 14">
      <path d="M7 1L13.4 12.6H.6Z" fill="var(--color-weld)" />
      <path d="M7 5V8.6M7 10.4V11" stroke="#fff" strokeWidth="1.5" strokeLinecap="round" />
    </svg>
  );
}

/** A stroke: nothing was found. */
export function Sound({ size = 14 }: { size?: number }) {
  return (
    <svg aria-hidden className="shrink-0" width={size} height={size} viewBox="0 0 14 14">
      <path
        d="M1.5 7.5L5.2 11.5L12.5 2.5"
        fill="none"
        stroke="var(--color-loden)"
        strokeWidth="2.2"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}
