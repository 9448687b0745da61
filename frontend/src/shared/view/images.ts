/** Pictures that motifs hold, fetched once; who paints is told when one has come. */
const images = new Map<string, HTMLImageElement>();
const listeners = new Set<() => void>();
const MOST_HELD = 300;
let arrived = 0;

export function imageOf(href: string): HTMLImageElement {
  const known = images.get(href);
  if (known) return known;
  if (images.size > MOST_HELD) images.clear();
  const image = new Image();
  image.onload = () => {
    arrived += 1;
    listeners.forEach((tell) => tell());
  };
  image.src = href;
  images.set(href, image);
  return image;
}

/** For useSyncExternalStore: how many pictures have come so far. */
export const imagesArrived = {
  subscribe: (tell: () => void): (() => void) => {
    listeners.add(tell);
    return () => void listeners.delete(tell);
  },
  count: (): number => arrived,
};
