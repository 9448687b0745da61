import { useCallback } from "react";
import type { Paint } from "../../shared/view/layers";
import { stampOf, stampShapes } from "../../shared/view/stamp";
import { WorkCanvas } from "../../shared/view/WorkCanvas";
import { useOpenMotif } from "./openMotif";
import { CLOSE, seamMiddle } from "./SeamProfile";
import { cutsOf } from "./tools/cut";

/** The motif's right edge against its next left edge, close. */
export function SeamView() {
  const { motif, seam } = useOpenMotif().bench;
  const [from, to] = cutsOf(motif);
  const seamPaint = useCallback<Paint>(
    (ctx, area, ratio) => {
      const scale = Math.min(CLOSE, (area.height / motif.height_mm) * 2.4);
      const stamp = stampOf(motif);
      const half = (left: boolean): void => {
        ctx.save();
        ctx.beginPath();
        ctx.rect(left ? 0 : area.width / 2, 0, area.width / 2, area.height);
        ctx.clip();
        const s = scale * ratio;
        const at = left ? to : from;
        const middle = seamMiddle(seam, motif.height_mm);
        ctx.setTransform(
          s,
          0,
          0,
          s,
          (area.width / 2 + (motif.width_mm / 2 - at) * scale) * ratio,
          (area.height / 2 + (motif.base_line_mm - middle) * scale) * ratio,
        );
        stampShapes(ctx, stamp);
        ctx.restore();
      };
      half(true);
      half(false);
      ctx.fillStyle = "#20352c";
      ctx.fillRect(area.width / 2 - 0.5, 0, 1, area.height);
    },
    [motif, from, to, seam],
  );
  return (
    <div className="w-[236px] shrink-0 max-[1150px]:w-full">
      <h3 className="mb-1 text-[14px] max-[1150px]:text-[12.5px] max-[1150px]:whitespace-nowrap">Seam, eight times close</h3>
      <div className="h-[150px] border border-rule max-[1150px]:h-[72px]">
        <WorkCanvas paint={seamPaint} label="The right edge against the next left edge, magnified" testId="seam" />
      </div>
    </div>
  );
}
