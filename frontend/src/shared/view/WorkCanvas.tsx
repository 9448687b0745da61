import { useEffect, useLayoutEffect, useRef, useState, useSyncExternalStore } from "react";
import { imagesArrived } from "./images";
import { fitCanvas, Layers, type Paint, type Under } from "./layers";

interface Props {
  paint: Paint;
  under?: Under;
  over?: Under;
  /** What is painted last, over everything. */
  top?: Paint;
  className?: string;
  label: string;
  testId?: string;
  /** How many pieces are painted, for measuring. */
  pieces?: number;
}

/** A canvas that fills its parent and is painted once a frame when `paint` or its size changes. */
export function WorkCanvas({ paint, under, over, top, className, label, testId, pieces }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const layers = useRef(new Layers());
  const pictures = useSyncExternalStore(imagesArrived.subscribe, imagesArrived.count); // a picture that comes late is painted then

  useEffect(() => {
    const element = canvas.current!;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  useLayoutEffect(() => {
    const element = canvas.current!;
    if (!size.width || !size.height) return;
    const ratio = window.devicePixelRatio || 1;
    fitCanvas(element, size, ratio);
    const ctx = element.getContext("2d")!;
    const late = (still?: Under): Under | undefined => still && { ...still, key: `${pictures} ${still.key}` };
    layers.current.paint(ctx, size, ratio, paint, late(under), late(over));
    top?.(ctx, size, ratio);
    element.dataset.painted = String(Number(element.dataset.painted ?? 0) + 1);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what stands still is told by its key
  }, [paint, top, under?.key, over?.key, size, pictures]);

  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={label}
      data-testid={testId}
      data-pieces={pieces}
      className={`block h-full w-full ${className ?? ""}`}
    />
  );
}

/** Follow the size of an element. */
export function useSize<T extends HTMLElement>() {
  const ref = useRef<T>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    const element = ref.current!;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, size] as const;
}
