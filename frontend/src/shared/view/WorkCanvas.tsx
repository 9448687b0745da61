import { useEffect, useLayoutEffect, useRef, useState, useSyncExternalStore } from "react";
import { imagesArrived } from "./images";

export type Paint = (ctx: CanvasRenderingContext2D, size: { width: number; height: number }, ratio: number) => void;

/** What stands still under the work: painted anew only where its key, or the canvas's size, is another. */
export interface Under {
  key: string;
  paint: Paint;
}

interface Props {
  paint: Paint;
  under?: Under;
  className?: string;
  label: string;
  testId?: string;
  /** How many pieces are painted, for measuring. */
  pieces?: number;
}

/** A canvas that fills its parent and is painted once a frame when `paint` or its size changes. */
export function WorkCanvas({ paint, under, className, label, testId, pieces }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const kept = useRef<{ key: string; canvas: HTMLCanvasElement } | null>(null);
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
    const width = Math.round(size.width * ratio);
    const height = Math.round(size.height * ratio);
    if (element.width !== width) element.width = width;
    if (element.height !== height) element.height = height;
    const ctx = element.getContext("2d")!;
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    if (under) {
      const key = `${width} ${height} ${under.key}`;
      if (kept.current?.key !== key) kept.current = { key, canvas: painted(under.paint, size, ratio, width, height) };
      ctx.globalCompositeOperation = "copy";
      ctx.drawImage(kept.current.canvas, 0, 0);
      ctx.globalCompositeOperation = "source-over";
    } else ctx.clearRect(0, 0, width, height);
    ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
    paint(ctx, size, ratio);
    element.dataset.painted = String(Number(element.dataset.painted ?? 0) + 1);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is under is told by its key
  }, [paint, under?.key, size, pictures]);

  return <canvas ref={canvas} role="img" aria-label={label} data-testid={testId} data-pieces={pieces} className={`block h-full w-full ${className ?? ""}`} />;
}

/** Paint on a canvas of its own, `width` × `height` device pixels. */
function painted(paint: Paint, size: { width: number; height: number }, ratio: number, width: number, height: number): HTMLCanvasElement {
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [width, height];
  const ctx = canvas.getContext("2d")!;
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  paint(ctx, size, ratio);
  return canvas;
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
