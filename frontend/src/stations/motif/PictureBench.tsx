import { useState } from "react";
import type { Original, Preparation } from "../../shared/api/client";
import { useBeginning } from "./beginning";
import { ClearFields } from "./ClearFields";
import { KeepFields } from "./KeepFields";
import { MakeMotif } from "./MakeMotif";
import { OpenPictureContext } from "./openPicture";
import { PicturePreview } from "./PicturePreview";
import { PictureSource } from "./PictureSource";
import { TraceFields } from "./TraceFields";
import type { Hand } from "./types";
import { usePreview } from "./usePicture";

const PLAIN: Preparation = {
  region: null,
  clear: null,
  tolerance: 12,
  belongs: [],
  belongs_not: [],
  mark_px: 16,
  fade_rim_pct: 0,
  fade_corner_pct: 0,
  coverage: null,
  stencil: false,
  back_white: false,
  trim: true,
  trace: null,
  threshold: null,
  colours: 4,
  least_speck_px: 24,
  sharpness: 0.5,
  width_mm: null,
  dpi: null,
};

const FIELDS =
  "grid h-[242px] shrink-0 grid-cols-[1fr_1fr_1fr_236px] gap-x-6 overflow-y-auto border-t border-rule bg-work px-5 py-2";

/** A picture on its way to a motif: what is taken of it, what is cleared, and the motif it would give, repeating. */
export function PictureBench({ original }: { original: Original }) {
  const kept = useBeginning((now) => now.kept);
  const [how, setHow] = useState<Preparation>(kept?.preparation ?? PLAIN);
  const [hand, setHand] = useState<Hand>("region");
  const set = (more: Partial<Preparation>): void => setHow((now) => ({ ...now, ...more }));
  const open = { original, how, set, hand, setHand, ...usePreview(original.sha, how) };
  return (
    <OpenPictureContext value={open}>
      <div className="flex min-h-0 flex-1 flex-col">
        <div className="flex min-h-0 flex-1">
          <PictureSource />
          <PicturePreview />
        </div>
        <div className={FIELDS}>
          <ClearFields />
          <KeepFields />
          <TraceFields />
          <MakeMotif />
        </div>
      </div>
    </OpenPictureContext>
  );
}
