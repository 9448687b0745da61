import { useTrouble } from "../shared/api/queries";

const BOX = "fixed bottom-5 left-1/2 z-40 flex max-w-[720px] -translate-x-1/2 items-center gap-4 px-4 py-2.5 shadow-sm";
const OF_KIND = { told: "border border-weld bg-weld-wash", bad: "border border-madder bg-madder-wash" };

/** Says what went wrong, what was kept, or what is to be known of what was done, and stays until it is dismissed. */
export function Trouble() {
  const { message, kind, clash, say } = useTrouble();
  if (!message) return null;
  const told = kind === "told";
  return (
    <div role={told ? "status" : "alert"} className={`${BOX} ${OF_KIND[told ? "told" : "bad"]}`}>
      {!told && (
        <svg aria-hidden width="16" height="16" viewBox="0 0 16 16" className="shrink-0">
          <path d="M2 14L14 2M2 2L14 14" stroke="var(--color-madder)" strokeWidth="2.4" strokeLinecap="round" />
        </svg>
      )}
      <span className="break-words">{message[0].toUpperCase() + message.slice(1).replace(/\.$/, "")}.</span>
      {clash && (
        <button className="firm-button shrink-0" onClick={() => (say(null), clash.take())}>
          Take “{clash.yours}”
        </button>
      )}
      <button className="plain-button shrink-0" onClick={() => say(null)}>
        {clash ? `Leave “${clash.theirs}”` : "Dismiss"}
      </button>
    </div>
  );
}
