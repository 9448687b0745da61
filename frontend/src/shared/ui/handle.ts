import { useLayoutEffect, useRef } from "react";
import { takeEarly, type Early } from "./early";

export interface Handle<At> {
  /** What the drag starts from. */
  begin: () => At;
  move: (dx: number, dy: number, at: At, fine: boolean) => void;
  done: (dx: number, dy: number, at: At, fine: boolean) => void;
  /** One press of an arrow key: +1 right or up, -1 left or down, ten times that with Shift; `upright` tells up and down. */
  step: (by: number, upright: boolean) => void;
  /** Let go without a change, back to what the drag started from. */
  leave: (at: At) => void;
}

interface Drag<At> {
  x: number;
  y: number;
  at: At;
  moved: boolean;
  /** Where the pointer was when last told. */
  told: { x: number; y: number };
  early: Early;
}

const NEARLY_PX = 2;

/** A mark that is dragged, or stepped with the arrow keys; Escape lets go without a change. */
export function useHandle<At>(handle: Handle<At>) {
  const drag = useRef<Drag<At> | null>(null);
  const newest = useRef(handle);
  useLayoutEffect(() => {
    newest.current = handle;
  });

  const tell = (event: PointerEvent): void => {
    const now = drag.current;
    if (!now || (now.told.x === event.clientX && now.told.y === event.clientY)) return;
    const [dx, dy] = [event.clientX - now.x, event.clientY - now.y];
    now.moved ||= Math.abs(dx) + Math.abs(dy) > NEARLY_PX;
    now.told = { x: event.clientX, y: event.clientY };
    if (now.moved) newest.current.move(dx, dy, now.at, event.shiftKey);
  };
  const stop = (): Drag<At> | null => {
    const last = drag.current;
    last?.early.stop();
    drag.current = null;
    return last;
  };

  return {
    tabIndex: 0,
    style: { touchAction: "none" } as const,
    onPointerDown: (event: React.PointerEvent) => {
      event.preventDefault();
      stop();
      const target = event.currentTarget as SVGElement | HTMLElement;
      target.focus({ preventScroll: true }); // Escape and the arrow keys then go to what is held
      target.setPointerCapture(event.pointerId);
      const [x, y] = [event.clientX, event.clientY];
      drag.current = { x, y, at: handle.begin(), moved: false, told: { x, y }, early: takeEarly(target, tell) };
    },
    onPointerMove: (event: React.PointerEvent) => {
      tell(event.nativeEvent);
      drag.current?.early.frame();
    },
    onPointerUp: (event: React.PointerEvent) => {
      const last = stop();
      if (last?.moved) handle.done(event.clientX - last.x, event.clientY - last.y, last.at, event.shiftKey);
    },
    onPointerCancel: () => {
      const last = stop();
      if (last?.moved) handle.leave(last.at);
    },
    onKeyDown: (event: React.KeyboardEvent) => {
      const last = event.key === "Escape" ? stop() : null;
      const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
      if (way) {
        event.preventDefault();
        handle.step(way * (event.shiftKey ? 10 : 1), event.key === "ArrowUp" || event.key === "ArrowDown");
      } else if (last) {
        event.preventDefault(); // Escape lets go of this, and of nothing else
        if (last.moved) handle.leave(last.at);
      }
    },
  };
}
