import { useCallback } from "react";
import type { Motif } from "../../shared/api/client";
import type { Paint } from "../../shared/view/layers";
import { stampOf, stampShapes } from "../../shared/view/stamp";
import { WorkCanvas } from "../../shared/view/WorkCanvas";
import { unionBox } from "./view";

/** A motif three times in a row, as it would repeat. */
export function Repeating({ motif }: { motif: Motif }) {
  const paint = useCallback<Paint>(
    (ctx, size, ratio) => {
      const ink = unionBox([[0, 0, motif.width_mm, motif.height_mm], ...motif.shapes.map((s) => s.box)]);
      const [across, high] = [2 * motif.width_mm + ink[2] - ink[0], ink[3] - ink[1]];
      const scale = Math.min((size.width - 8) / across, (size.height - 6) / high);
      const left = (size.width - across * scale) / 2 - ink[0] * scale;
      const top = (size.height - high * scale) / 2 - ink[1] * scale;
      for (let k = 0; k < 3; k++) {
        const s = scale * ratio;
        ctx.setTransform(
          s,
          0,
          0,
          s,
          (left + (k + 0.5) * motif.width_mm * scale) * ratio,
          (top + motif.base_line_mm * scale) * ratio,
        );
        stampShapes(ctx, stampOf(motif));
      }
    },
    [motif],
  );
  return <WorkCanvas paint={paint} label={`${motif.name}, repeating`} />;
}
