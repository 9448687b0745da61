import { api, kept, type Motif, type Schemas } from "../../shared/api/client";
import { bringInPicture, MOST_PICTURE, nameOf, PICTURES, tooLarge } from "../../shared/api/originals";
import { useChange, useTrouble } from "../../shared/api/queries";
import { provided } from "../../shared/state/scoped";
import { go } from "../../shared/ui/place";
import { useBeginning } from "./beginning";

const MOST_SVG = 10 * 1024 * 1024;

/** Bring a file in: a drawing becomes a motif, a picture lies on the bench to be made into one. */
export function useTakeFile(): (chosen: File | undefined) => Promise<void> {
  const takePicture = useBeginning((now) => now.take);
  const read = useBeginning((now) => now.read);
  const say = useTrouble((trouble) => trouble.say);
  const bringIn = useChange((body: Schemas["NewMotif"]) => kept<Motif>(api.POST("/api/motifs", { body })));
  return async (chosen: File | undefined): Promise<void> => {
    if (!chosen) return;
    const picture = PICTURES.test(chosen.name) || /^image\/(png|jpeg|webp|tiff)$/.test(chosen.type);
    const most = picture ? MOST_PICTURE : MOST_SVG;
    if (chosen.size > most) {
      say(tooLarge(chosen, most, picture ? "a picture" : "a drawing"));
      return;
    }
    const name = nameOf(chosen, "Motif");
    if (picture) {
      read(chosen.name);
      try {
        takePicture(await bringInPicture(name, chosen));
      } catch (why) {
        say((why as Error).message);
      } finally {
        read(null);
      }
    } else bringIn.mutate({ name, svg: await chosen.text(), trim: true }, { onSuccess: (m) => go("motif", m.id) });
  };
}

/** Choose a file to be brought in. */
export const [BringInContext, useBringIn] = provided<{ pick: () => void }>("the file to bring in");
