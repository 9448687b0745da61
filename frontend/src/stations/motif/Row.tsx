export function Row({ words, children }: { words: string; children: React.ReactNode }) {
  return (
    <div className="mb-1.5 flex flex-wrap items-center gap-1.5">
      <span className="w-[104px] shrink-0 text-[12.5px] text-moss">{words}</span>
      {children}
    </div>
  );
}
