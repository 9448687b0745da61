import { useRef } from "react";
import { takeEarly, type Early } from "./early";

/** Handlers for what follows pointermove by itself, as sliders do: it is given the first movement of a frame as it comes. */
export function useEarlyMoves() {
  const early = useRef<Early | null>(null);
  const stop = (): void => {
    early.current?.stop();
    early.current = null;
  };
  return {
    onPointerDownCapture: ({ currentTarget, target }: React.PointerEvent): void => {
      stop();
      const pass = (event: PointerEvent): boolean => target.dispatchEvent(new PointerEvent("pointermove", event));
      early.current = takeEarly(currentTarget, pass);
    },
    onPointerMove: ({ nativeEvent }: React.PointerEvent): void => {
      if (nativeEvent.isTrusted) early.current?.frame();
    },
    onPointerUp: stop,
    onPointerCancel: stop,
  };
}
