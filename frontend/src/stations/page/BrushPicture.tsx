import { Swatch } from "../../shared/view/Swatch";
import { useLaidPage } from "./laidPage";

/** A brush on the standard curve and corner, as small as in a list. */
export function BrushPicture({ brushId }: { brushId: number }) {
  const { workshop, swatches } = useLaidPage();
  return (
    <span aria-hidden className="h-[34px] w-[46px] shrink-0">
      <Swatch of={swatches(brushId)} label={workshop.brushes.find((brush) => brush.id === brushId)?.name ?? ""} />
    </span>
  );
}
