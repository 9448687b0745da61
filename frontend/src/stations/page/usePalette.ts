import { api, kept, type Page } from "../../shared/api/client";
import { useChange, withVersion } from "../../shared/api/queries";

export interface PaletteInk {
  name: string;
  colour: string;
}

/** The hand that changes a page's palette, lines with it. */
export function usePalette(page: Page): (palette: PaletteInk[]) => void {
  const { mutate } = useChange((palette: PaletteInk[]) =>
    withVersion("page", page, (version) =>
      kept(api.PATCH("/api/pages/{id}", { params: { path: { id: page.id } }, body: { version, palette } })),
    ),
  );
  return mutate;
}
