import { CutFields } from "./CutFields";
import { Cutting } from "./Cutting";
import { JointFields } from "./JointFields";
import { Mending } from "./Mending";
import { useOpenMotif } from "./openMotif";
import { SeamFigures } from "./SeamFigures";
import { Profile } from "./SeamProfile";
import { SeamView } from "./SeamView";

/** The seam eight times close, both edges in profile, its figures, and what mends it. */
export function SeamPanel() {
  const { motif, seam } = useOpenMotif().bench;
  return (
    <div className="flex h-full gap-6 max-[1150px]:gap-4">
      <div className="flex shrink-0 gap-6 max-[1150px]:w-[146px] max-[1150px]:flex-col max-[1150px]:gap-1">
        <SeamView />
        <Profile seam={seam} height={motif.height_mm} />
      </div>
      <div className="min-w-0 flex-1 overflow-y-auto">
        <SeamFigures />
        <Mending />
        <Cutting />
      </div>
      <div className="grid w-[262px] shrink-0 auto-rows-min grid-cols-2 gap-x-3 gap-y-1.5">
        <CutFields />
        <JointFields />
      </div>
    </div>
  );
}
