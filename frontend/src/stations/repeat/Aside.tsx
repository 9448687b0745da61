import { useBench } from "./bench";
import { useOpenBench } from "./openBench";

/** Keep settings aside to see both on all trial lines; take them back, or let go of them. */
export function Aside() {
  const { brush, hands } = useOpenBench();
  const aside = useBench((bench) => bench.aside);
  const keepAside = useBench((bench) => bench.keepAside);
  if (!aside)
    return (
      <button
        className="plain-button px-1.5 py-0"
        title="Keep these settings aside and see both on all trial lines (q k)"
        onClick={() => keepAside(brush.settings)}
      >
        Keep aside
      </button>
    );
  const same = JSON.stringify(aside) === JSON.stringify(brush.settings);
  return (
    <>
      <button className="plain-button px-1.5 py-0" disabled={same} onClick={() => hands.set(aside, "what was kept aside")}>
        take it back
      </button>
      <button className="plain-button px-1.5 py-0" title="q k" onClick={() => keepAside(null)}>
        let go
      </button>
    </>
  );
}
