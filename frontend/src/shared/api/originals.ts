import { Refusal, type Original } from "./client";

export const MOST_PICTURE = 100 * 1024 * 1024; // bytes
export const PICTURES = /\.(png|jpe?g|webp|tiff?)$/i;

/** A file's name as a name for what is made of it. */
export function nameOf(file: File, otherwise: string): string {
  const words = file.name.replace(/\.\w+$/i, "").replace(/[-_]+/g, " ");
  return (words.trim() || otherwise).slice(0, 200);
}

/** What is said of a file that is larger than it may be. */
export function tooLarge(file: File, most: number, what: string): string {
  const mega = (bytes: number, digits: number): string => (bytes / 1048576).toFixed(digits);
  return `${file.name} is ${mega(file.size, 1)} MB, more than the ${mega(most, 0)} MB ${what} may have; nothing was brought in`;
}

/** Bring a picture's bytes in, which are kept once. */
export async function bringInPicture(name: string, chosen: File): Promise<Original> {
  const reply = await fetch(`/api/originals?name=${encodeURIComponent(name)}`, {
    method: "POST",
    headers: { "Content-Type": "application/octet-stream" },
    body: chosen,
  });
  const answer = await reply.json();
  if (!reply.ok) throw Refusal.of(reply.status, answer);
  return answer as Original;
}
