import { useState } from "react";
import { useKeys, useWindowKey } from "../shared/ui/keys";
import { codesFor, operable, operate } from "../shared/ui/lettered";

const MARK = "border border-loden bg-weld-wash px-1 font-sans text-[11px] leading-[15px] font-bold text-loden";

/** Letters on everything that can be operated, while they are shown: type them to press it, or to go there. */
export function Lettered() {
  const lettered = useKeys((keys) => keys.lettered);
  return lettered ? <Letters /> : null;
}

function Letters() {
  const set = useKeys((keys) => keys.set);
  const [marks] = useState(() => {
    const all = operable();
    const codes = codesFor(all.length);
    return all.map((what, i) => ({ what, code: codes[i], at: what.getBoundingClientRect() }));
  });
  const [typed, setTyped] = useState("");
  useWindowKey("keydown", (event) => {
    event.preventDefault();
    const next = typed + event.key.toLowerCase();
    const left = marks.filter(({ code }) => code.startsWith(next));
    if (event.key.length > 1 && event.key !== "Escape") return; // Shift and the like
    if (!left.length || event.key === "Escape") return set({ lettered: false });
    if (left[0].code !== next) return setTyped(next);
    set({ lettered: false });
    operate(left[0].what);
  });
  return (
    <div data-testid="lettered" className="pointer-events-none fixed inset-0 z-[60]">
      {marks
        .filter(({ code }) => code.startsWith(typed))
        .map(({ code, at }) => (
          <kbd
            key={code}
            className={`absolute -translate-x-1/3 -translate-y-1/3 ${MARK}`}
            style={{ left: Math.max(6, at.x), top: Math.max(6, at.y) }}
          >
            {code.slice(typed.length)}
          </kbd>
        ))}
    </div>
  );
}
