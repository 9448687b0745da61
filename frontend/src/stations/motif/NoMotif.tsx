import { useBeginning } from "./beginning";
import { useBringIn } from "./bringIn";

/** The first step at an empty Motif station. */
export function NoMotif() {
  const begin = useBeginning((now) => now.begin);
  const { pick } = useBringIn();
  return (
    <div className="mx-auto mt-20 max-w-[52ch]">
      <h2 className="text-xl">No motif yet</h2>
      <p className="my-3">
        A motif is the piece that repeats: one link, leaf or stitch. Begin with a starter and change its figures, or bring in an
        SVG, a scan or a photo.
      </p>
      <button className="firm-button mr-3" onClick={() => begin("starters")}>
        Begin with a starter
      </button>
      <button className="plain-button" onClick={pick}>
        Bring in a file
      </button>
    </div>
  );
}
