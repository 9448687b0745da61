/** A picture that a motif holds; `source` is null until it has come. */
export interface Picture {
  source: HTMLImageElement | ImageBitmap | null;
}

/** The pictures, fetched once; who paints is told when one has come. */
const pictures = new Map<string, Picture>();
const listeners = new Set<() => void>();
const MOST_HELD = 300;
let arrived = 0;

export function imageOf(href: string): Picture {
  const known = pictures.get(href);
  if (known) return known;
  if (pictures.size > MOST_HELD) pictures.clear();
  const picture: Picture = { source: null };
  const come = (source: HTMLImageElement | ImageBitmap): void => {
    picture.source = source;
    arrived += 1;
    listeners.forEach((tell) => tell());
  };
  if (typeof Image === "undefined")
    void bitmapOf(href).then(come, () => undefined); // like an image that cannot be had, it stays away
  else {
    const image = new Image();
    image.onload = () => come(image);
    image.src = href;
  }
  pictures.set(href, picture);
  return picture;
}

/** Decode a picture in a worker, which has no images of the page. */
async function bitmapOf(href: string): Promise<ImageBitmap> {
  const inline = /^data:([^;]+);base64,(.*)$/.exec(href);
  const bytes = inline && Uint8Array.from(atob(inline[2]), (letter) => letter.charCodeAt(0));
  return createImageBitmap(bytes ? new Blob([bytes], { type: inline[1] }) : await (await fetch(href)).blob());
}

/** For useSyncExternalStore: how many pictures have come so far. */
export const imagesArrived = {
  subscribe: (tell: () => void): (() => void) => {
    listeners.add(tell);
    return () => void listeners.delete(tell);
  },
  count: (): number => arrived,
};
