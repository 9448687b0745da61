import { api, kept, type Brush } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import { go } from "../../shared/ui/place";

interface Props {
  brush: Brush;
  onCopy: () => void;
  onRename: () => void;
}

/** What can be done with a brush on the shelf. */
export function Doings({ brush, onCopy, onRename }: Props) {
  const remove = useChange(() =>
    kept(api.DELETE("/api/brushes/{id}", { params: { path: { id: brush.id }, query: { version: brush.version } } })),
  );
  return (
    <div className="mt-1 flex gap-3.5 text-[12.5px]">
      <button className="text-indigo underline decoration-dotted" aria-label={`Duplicate ${brush.name}`} onClick={onCopy}>
        Duplicate
      </button>
      <button className="text-indigo underline decoration-dotted" aria-label={`Rename ${brush.name}`} onClick={onRename}>
        Rename
      </button>
      <button
        className="text-indigo underline decoration-dotted"
        aria-label={`Motif of ${brush.name}`}
        onClick={() => go("motif", brush.motif_id)}
      >
        Its motif
      </button>
      <button
        className="ml-auto text-madder underline decoration-dotted"
        aria-label={`Delete ${brush.name}`}
        onClick={() => remove.mutate(undefined)}
      >
        Delete
      </button>
    </div>
  );
}
