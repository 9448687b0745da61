import type { Preparation } from "../../shared/api/client";
import { useOpenPicture } from "./openPicture";
import { TraceOver } from "./TraceOver";

/** What lies over a picture: the region that is taken, the motif's frame, and marks of what belongs. */
export function PictureMarks({ region, scale }: { region: Preparation["region"]; scale: number }) {
  const { how, preview } = useOpenPicture();
  const frame = preview?.frame_px;
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full overflow-visible">
      <TraceOver scale={scale} />
      {region && (
        <rect
          x={region[0] * scale}
          y={region[1] * scale}
          width={region[2] * scale}
          height={region[3] * scale}
          fill="none"
          stroke="var(--color-madder)"
          strokeWidth="1.6"
          strokeDasharray="6 3"
        />
      )}
      {frame && (
        <rect
          x={frame[0] * scale}
          y={frame[1] * scale}
          width={frame[2] * scale}
          height={frame[3] * scale}
          fill="none"
          stroke="var(--color-indigo)"
          strokeWidth="1.2"
        />
      )}
      {how.belongs?.map(([x, y], i) => (
        <path
          key={`b${i}`}
          d={`M${x * scale - 5} ${y * scale}h10M${x * scale} ${y * scale - 5}v10`}
          stroke="#0b6b3a"
          strokeWidth="3"
        />
      ))}
      {how.belongs_not?.map(([x, y], i) => (
        <path key={`n${i}`} d={`M${x * scale - 5} ${y * scale}h10`} stroke="var(--color-madder)" strokeWidth="3" />
      ))}
    </svg>
  );
}
