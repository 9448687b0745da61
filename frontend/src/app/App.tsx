import { lazy, Suspense, useEffect } from "react";
import { useWorkshop } from "../shared/api/queries";
import { isTyping, lettersNow, useKeys, useWindowKey } from "../shared/ui/keys";
import { go, STATIONS, usePlace } from "../shared/ui/place";
import { Band } from "./Band";
import { useHistorySteps } from "./useHistorySteps";
import { useOtherWindows } from "./useOtherWindows";
import { KeySheet, LettersBar } from "./KeySheet";
import { Lettered } from "./Lettered";
import { Trouble } from "./Trouble";

// each station comes when it is gone to, and the others once the first one stands
const coming = {
  motif: () => import("../stations/motif"),
  repeat: () => import("../stations/repeat"),
  page: () => import("../stations/page"),
  shelf: () => import("../stations/shelf"),
};
const MotifStation = lazy(() => coming.motif().then((face) => ({ default: face.MotifStation })));
const RepeatStation = lazy(() => coming.repeat().then((face) => ({ default: face.RepeatStation })));
const PageStation = lazy(() => coming.page().then((face) => ({ default: face.PageStation })));
const ShelfStation = lazy(() => coming.shelf().then((face) => ({ default: face.ShelfStation })));

export function App() {
  const place = usePlace();
  const { data, isPending, error, refetch } = useWorkshop();
  const { undo, redo } = useHistorySteps();
  useOtherWindows();
  const keys = useKeys();

  useEffect(() => {
    if (!data) return;
    const idle = window.requestIdleCallback(() => Object.values(coming).forEach((come) => void come()), { timeout: 3000 });
    return () => window.cancelIdleCallback(idle);
  }, [data]);

  useWindowKey("keydown", (event) => {
    const command = event.ctrlKey || event.metaKey;
    if (command && event.key.toLowerCase() === "z" && !isTyping(event)) {
      event.preventDefault();
      (event.shiftKey ? redo : undo)();
      return;
    }
    if (command || event.altKey || isTyping(event) || keys.lettered) return;
    if (keys.waiting) {
      const action = lettersNow().find((a) => a.letter === event.key.toLowerCase());
      keys.set({ waiting: false, lettered: !action && event.key === "q" });
      if (action) {
        event.preventDefault();
        action.act();
      }
      return;
    }
    if (event.key === "q") keys.set({ waiting: true });
    else if (event.key === "?") keys.set({ sheet: true });
    else if (/^[1-4]$/.test(event.key)) go(STATIONS[Number(event.key) - 1]);
  });

  return (
    <div className="flex h-full min-w-[1024px] flex-col">
      <Band place={place} workshop={data} />
      <main className="relative min-h-0 flex-1">
        {isPending && <p className="p-8 text-moss">Opening the workshop…</p>}
        {error && (
          <div className="p-8">
            <p className="mb-3">The workshop cannot be reached: {error.message}.</p>
            <button className="firm-button" onClick={() => void refetch()}>
              Try again
            </button>
          </div>
        )}
        <Suspense fallback={<p className="p-8 text-moss">Opening the workshop…</p>}>
          {data && place.station === "motif" && <MotifStation workshop={data} id={place.id} />}
          {data && place.station === "repeat" && <RepeatStation workshop={data} id={place.id} />}
          {data && place.station === "page" && <PageStation workshop={data} id={place.id} />}
          {data && place.station === "shelf" && <ShelfStation workshop={data} />}
        </Suspense>
      </main>
      <Trouble />
      <LettersBar />
      <Lettered />
      <KeySheet />
    </div>
  );
}
