/** What takes movements early: told that a frame has come, and to stop. */
export interface Early {
  frame: () => void;
  stop: () => void;
}

/**
 * Take the first movement in a frame as it comes.
 *
 * The browser holds pointermove back until the next frame. The first movement is taken from
 * pointerrawupdate (Pointer Events 3), so that its picture is asked for up to a frame earlier;
 * pointermove then brings what came after it, and is told by `frame`.
 */
export function takeEarly(target: Element, take: (event: PointerEvent) => void): Early {
  let taken = false;
  const raw = (event: Event): void => {
    if (taken) return;
    taken = true;
    take(event as PointerEvent);
  };
  target.addEventListener("pointerrawupdate", raw);
  return {
    frame: () => {
      taken = false;
    },
    stop: () => target.removeEventListener("pointerrawupdate", raw),
  };
}
