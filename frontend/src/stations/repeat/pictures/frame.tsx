/** What tiny pictures of a setting share: a line 62 px long and pills on it. */

export function Frame({ children }: { children: React.ReactNode }) {
  return (
    <svg aria-hidden width="64" height="22" viewBox="0 0 64 22" className="mx-auto">
      {children}
    </svg>
  );
}

export const LINE = <path d="M1 11H63" stroke="var(--color-madder)" strokeWidth=".8" strokeDasharray="1 2" />;

export function pills(xs: number[], length: number, height = 7) {
  return xs.map((x) => (
    <rect key={x} x={x} y={11 - height / 2} width={length} height={height} rx={height / 2} fill="var(--color-loden)" />
  ));
}
