import { HEIGHT, ROOM } from "./joinPlotSizes";

interface FiguresProps {
  most: number;
  mostKink: number;
  length: number;
  width: number;
  y: (gap: number) => number;
  kinkY: (kink: number) => number;
  ink: string;
  weld: string;
}

/** What the plot's axes count, and how far they go. */
export function Figures({ most, mostKink, length, width, y, kinkY, ink, weld }: FiguresProps) {
  return (
    <>
      <text x={ROOM.left} y={11} fill={ink}>
        Gap beyond the wish, mm
      </text>
      <text x={ROOM.left + width} y={11} textAnchor="end" fill={weld}>
        Kink, °
      </text>
      {[most, 0, -most].map((v) => (
        <text key={v} x={ROOM.left - 5} y={y(v) + 4} textAnchor="end" fill={ink}>
          {v === 0 ? "0" : `${v > 0 ? "+" : "−"}${Math.abs(v).toFixed(2)}`}
        </text>
      ))}
      {[mostKink, 0].map((v) => (
        <text key={v} x={ROOM.left + width + 5} y={kinkY(v) + 4} fill={weld}>
          {v.toFixed(0)}°
        </text>
      ))}
      <text x={ROOM.left + width} y={HEIGHT - 2} textAnchor="end" fill={ink}>
        {length.toFixed(0)} mm
      </text>
    </>
  );
}
