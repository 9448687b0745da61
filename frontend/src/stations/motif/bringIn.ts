import { api, kept, Refusal, type Motif, type Original, type Schemas } from "../../shared/api/client";
import { useChange, useTrouble } from "../../shared/api/queries";
import { provided } from "../../shared/state/scoped";
import { go } from "../../shared/ui/place";
import { useBeginning } from "./beginning";

const MOST_SVG = 10 * 1024 * 1024;
const MOST_PICTURE = 100 * 1024 * 1024;
const PICTURES = /\.(png|jpe?g|webp|tiff?)$/i;

/** Bring a file in: a drawing becomes a motif, a picture lies on the bench to be made into one. */
export function useTakeFile(): (chosen: File | undefined) => Promise<void> {
  const takePicture = useBeginning((now) => now.take);
  const say = useTrouble((trouble) => trouble.say);
  const bringIn = useChange((body: Schemas["NewMotif"]) => kept<Motif>(api.POST("/api/motifs", { body })));
  return async (chosen: File | undefined): Promise<void> => {
    if (!chosen) return;
    const picture = PICTURES.test(chosen.name) || /^image\/(png|jpeg|webp|tiff)$/.test(chosen.type);
    const most = picture ? MOST_PICTURE : MOST_SVG;
    if (chosen.size > most) {
      const [size, may] = [(chosen.size / 1048576).toFixed(1), most / 1048576];
      say(
        `${chosen.name} is ${size} MB, more than the ${may} MB ${picture ? "a picture" : "a drawing"} may have; nothing was brought in`,
      );
      return;
    }
    const name = (
      chosen.name
        .replace(/\.\w+$/i, "")
        .replace(/[-_]+/g, " ")
        .trim() || "Motif"
    ).slice(0, 200);
    if (picture) {
      try {
        takePicture(await bringInPicture(name, chosen));
      } catch (why) {
        say((why as Error).message);
      }
    } else bringIn.mutate({ name, svg: await chosen.text(), trim: true }, { onSuccess: (m) => go("motif", m.id) });
  };
}

async function bringInPicture(name: string, chosen: File): Promise<Original> {
  const reply = await fetch(`/api/originals?name=${encodeURIComponent(name)}`, {
    method: "POST",
    headers: { "Content-Type": "application/octet-stream" },
    body: chosen,
  });
  const answer = await reply.json();
  if (!reply.ok) throw Refusal.of(reply.status, answer);
  return answer as Original;
}

/** Choose a file to be brought in. */
export const [BringInContext, useBringIn] = provided<{ pick: () => void }>("the file to bring in");
