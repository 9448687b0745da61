import { api, kept, type Motif, type Original } from "../../shared/api/client";
import { useTrouble } from "../../shared/api/queries";
import { useBeginning } from "./beginning";
import { useOpenMotif } from "./openMotif";

/** The way back to the picture that a motif was made of, as it was prepared. */
export function ItsPicture({ picture }: { picture: NonNullable<Motif["picture"]> }) {
  const { motif } = useOpenMotif();
  const take = useBeginning((now) => now.take);
  const say = useTrouble((trouble) => trouble.say);
  const open = (): Promise<void> =>
    kept<Original>(api.GET("/api/originals/{sha}", { params: { path: { sha: picture.sha } } })).then(
      (original) => take(original, { motif, preparation: picture.preparation }),
      (why: Error) => say(why.message),
    );
  return (
    <button className="mb-1 text-[12.5px] text-indigo underline decoration-dotted" onClick={() => void open()}>
      Open its picture again
    </button>
  );
}
