import { useCallback } from "react";
import type { Motif } from "../../shared/api/client";
import type { Paint } from "../../shared/view/layers";
import { laidArtwork, stampOf, stampShapes } from "../../shared/view/stamp";
import { WorkCanvas } from "../../shared/view/WorkCanvas";
import { unionBox } from "./view";

/** A motif three times in a row, as it would repeat. */
export function Repeating({ motif }: { motif: Motif }) {
  const paint = useCallback<Paint>(
    (ctx, size, ratio) => {
      const ink = unionBox([[0, 0, motif.width_mm, motif.height_mm], ...motif.shapes.map((s) => s.box)]);
      const [across, high] = [2 * motif.pitch_mm + ink[2] - ink[0], ink[3] - ink[1]];
      const scale = Math.min((size.width - 8) / across, (size.height - 6) / high);
      const left = (size.width - across * scale) / 2 - ink[0] * scale;
      const top = (size.height - high * scale) / 2 - ink[1] * scale;
      const s = scale * ratio;
      const y = (top + motif.base_line_mm * scale) * ratio;
      const stamp = stampOf(laidArtwork(motif));
      for (const pass of stamp.passes)
        for (let k = 0; k < 3; k++) {
          ctx.setTransform(s, 0, 0, s, left * ratio + (k * motif.pitch_mm + motif.width_mm / 2) * s, y);
          stampShapes(ctx, stamp, 0, pass);
        }
    },
    [motif],
  );
  return <WorkCanvas paint={paint} label={`${motif.name}, repeating`} />;
}
