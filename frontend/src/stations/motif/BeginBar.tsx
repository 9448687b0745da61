import { useBeginning, type Beginning } from "./beginning";
import { useBringIn } from "./bringIn";

/** The ways to begin a motif. */
export function BeginBar({ children }: { children?: React.ReactNode }) {
  const beginning = useBeginning((now) => now.beginning);
  const begin = useBeginning((now) => now.begin);
  const { pick } = useBringIn();
  const way = (words: string, which: Exclude<Beginning, null>) => (
    <button
      className="font-semibold hover:text-madder aria-expanded:text-madder"
      aria-expanded={beginning === which}
      onClick={() => begin(which)}
    >
      {words}
    </button>
  );
  return (
    <header className="flex h-[42px] shrink-0 items-center gap-6 border-b border-rule px-5 whitespace-nowrap max-[1150px]:gap-4">
      <span className="text-moss max-[1150px]:hidden">Begin with</span>
      {way("Starters", "starters")}
      <button className="font-semibold hover:text-madder" onClick={pick}>
        Bring in
      </button>
      {way("Scan tray", "tray")}
      {way("Pick up from a page", "pick-up")}
      {children}
    </header>
  );
}
