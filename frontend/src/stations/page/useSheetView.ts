import { useEffect, useMemo, useState, type RefObject } from "react";
import type { Page } from "../../shared/api/client";
import type { Size } from "../../shared/view/layers";
import type { View } from "../../shared/view/view";
import { fitSheet, zoomed } from "./sheetView";

const RIM_PX = 20; // a place closer than this to the window's rim is brought to its middle

/** The view on the sheet: the whole of it until the wheel, a pull or a place to look at says otherwise; null is the whole again. */
export function useSheetView(box: RefObject<HTMLElement | null>, size: Size, page: Page, spot: [number, number] | null) {
  const [own, setView] = useState<View | null>(null);
  const view = useMemo(() => own ?? fitSheet(size, page), [own, size, page]);

  // a place outside the window is brought to its middle, once
  const [goneTo, setGoneTo] = useState(spot);
  if (goneTo !== spot) {
    setGoneTo(spot);
    const out = (at: number, whole: number): boolean => at < RIM_PX || at > whole - RIM_PX;
    const [x, y] = spot ?? [0, 0];
    if (spot && (out(x * view.scale + view.x, size.width) || out(y * view.scale + view.y, size.height)))
      setView({ scale: view.scale, x: size.width / 2 - x * view.scale, y: size.height / 2 - y * view.scale });
  }

  useEffect(() => {
    const element = box.current!;
    const onWheel = (event: WheelEvent): void => {
      event.preventDefault();
      const rect = element.getBoundingClientRect();
      setView((now) => {
        const from = now ?? fitSheet({ width: element.clientWidth, height: element.clientHeight }, page);
        if (event.ctrlKey)
          return zoomed(from, Math.exp(-event.deltaY / 240), event.clientX - rect.left, event.clientY - rect.top);
        return { ...from, x: from.x - event.deltaX, y: from.y - event.deltaY };
      });
    };
    element.addEventListener("wheel", onWheel, { passive: false });
    return () => element.removeEventListener("wheel", onWheel);
  }, [page, box]);

  const zoom = (by: number): void => setView(zoomed(view, by, size.width / 2, size.height / 2));
  return { view, setView, zoom };
}
