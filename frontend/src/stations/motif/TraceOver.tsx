import { useOpenPicture } from "./openPicture";

/** The outlines that a picture is traced to, over it. */
export function TraceOver({ scale }: { scale: number }) {
  const { how, preview } = useOpenPicture();
  if (!how.trace || preview?.deviation_mm == null) return null;
  const [x, y, width] = preview.frame_px;
  const own = (width * scale) / preview.motif.width_mm;
  return (
    <g data-testid="trace-over" transform={`translate(${x * scale} ${y * scale}) scale(${own})`} fill="none">
      {["rgba(255,255,255,0.85)", "var(--color-madder)"].map((colour, i) =>
        preview.motif.shapes.map(({ d }, k) => (
          <path key={`${i} ${k}`} d={d} stroke={colour} strokeWidth={i ? 1.3 : 3.4} vectorEffect="non-scaling-stroke" />
        )),
      )}
    </g>
  );
}
