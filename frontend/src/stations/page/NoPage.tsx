import { api, kept, type Page } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import { go } from "../../shared/ui/place";

export function NoPage() {
  const make = useChange(() =>
    kept<Page>(api.POST("/api/pages", { body: { name: "First page", width_mm: 297, height_mm: 210, ground: null } })),
  );
  return (
    <div className="mx-auto mt-24 max-w-[56ch]">
      <h2 className="text-xl">No page yet</h2>
      <p className="my-3">A page is a sheet in millimetres on which brushes are laid along lines.</p>
      <button className="firm-button" onClick={() => make.mutate(undefined, { onSuccess: (page) => go("page", page.id) })}>
        Make an A4 page
      </button>
    </div>
  );
}
