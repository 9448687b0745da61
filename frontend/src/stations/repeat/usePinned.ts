import { api, kept, type Brush } from "../../shared/api/client";
import { useChange, withVersion } from "../../shared/api/queries";

/** The arrangements of a brush that were found good, and the hand that pins one or lets go of it. */
export function usePinned(brush: Brush) {
  const { mutate } = useChange((pinned: number[]) =>
    withVersion("brush", brush, (version) =>
      kept(
        api.PATCH("/api/brushes/{id}", {
          params: { path: { id: brush.id } },
          body: { version, pinned, label: "pinned arrangements", merge_key: "" },
        }),
      ),
    ),
  );
  const { pinned } = brush;
  const toggle = (n: number): void => mutate(pinned.includes(n) ? pinned.filter((each) => each !== n) : [...pinned, n]);
  return { pinned, toggle };
}
