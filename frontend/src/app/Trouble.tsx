import { useTrouble } from "../shared/api/queries";

const BOX = "border border-madder bg-madder-wash px-4 py-2.5 shadow-sm";

/** Says what went wrong, what was kept, and stays until it is dismissed. */
export function Trouble() {
  const { message, clash, say } = useTrouble();
  if (!message) return null;
  return (
    <div role="alert" className={`fixed bottom-5 left-1/2 z-40 flex max-w-[720px] -translate-x-1/2 items-center gap-4 ${BOX}`}>
      <svg aria-hidden width="16" height="16" viewBox="0 0 16 16">
        <path d="M2 14L14 2M2 2L14 14" stroke="var(--color-madder)" strokeWidth="2.4" strokeLinecap="round" />
      </svg>
      <span className="break-words">{message[0].toUpperCase() + message.slice(1)}.</span>
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
