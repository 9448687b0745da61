import { useEffect, useLayoutEffect, useRef, useState, type RefObject } from "react";

const REACH_PX = 90; // chosen: a hand that comes for a point sees it grow before it is there

/** Which of some places on an element the pointer is near; all where no pointer hovers, as under a finger. */
export function useNear(places: [number, number][]): [RefObject<SVGSVGElement | null>, { has: (i: number) => boolean }] {
  const frame = useRef<SVGSVGElement>(null);
  const newest = useRef(places);
  const [near, setNear] = useState("");
  useLayoutEffect(() => {
    newest.current = places;
  });
  useEffect(() => {
    const look = (event: PointerEvent): void => {
      const box = frame.current?.getBoundingClientRect();
      if (!box) return;
      const [x, y] = [event.clientX - box.left, event.clientY - box.top];
      const found = newest.current.flatMap(([px, py], i) => (Math.hypot(px - x, py - y) < REACH_PX ? [i] : []));
      setNear(found.join(" ")); // the same text renders nothing anew
    };
    window.addEventListener("pointermove", look);
    return () => window.removeEventListener("pointermove", look);
  }, []);
  const hovers = window.matchMedia?.("(hover: none)").matches !== true;
  const all = new Set(near.split(" ").filter(Boolean).map(Number));
  return [frame, { has: (i) => !hovers || all.has(i) }];
}
