import { type Schemas } from "../../shared/api/client";

export const CLOSE = (8 * 96) / 25.4; // eight times life size, in CSS pixels a mm

export function seamMiddle(seam: Schemas["SeamMessage"], height: number): number {
  const [tops, feet] = [
    [...seam.left.top_mm, ...seam.right.top_mm],
    [...seam.left.foot_mm, ...seam.right.foot_mm],
  ];
  return tops.length ? (Math.min(...tops) + Math.max(...feet)) / 2 : height / 2;
}

/** Both edges in profile, side by side: what is filled down the right edge and down the next left one; what differs is marked. */
export function Profile({ seam, height }: { seam: Schemas["SeamMessage"]; height: number }) {
  const [tops, feet] = [
    [...seam.left.top_mm, ...seam.right.top_mm],
    [...seam.left.foot_mm, ...seam.right.foot_mm],
  ];
  const top = tops.length ? Math.min(...tops) : 0;
  const foot = tops.length ? Math.max(...feet) : height;
  const pad = Math.max(0.2, (foot - top) * 0.12);
  const y = (mm: number): number => ((mm - top + pad) / (foot - top + 2 * pad)) * 148 + 1;
  const covered = (edge: Schemas["EdgeMessage"], mm: number): boolean =>
    edge.top_mm.some((t, i) => mm >= t && mm <= edge.foot_mm[i]);
  const breaks = [...new Set([...tops, ...feet])].sort((a, b) => a - b);
  const differ = breaks
    .slice(1)
    .map((b, i) => [breaks[i], b])
    .filter(([a, b]) => covered(seam.left, (a + b) / 2) !== covered(seam.right, (a + b) / 2));
  const bars = (edge: Schemas["EdgeMessage"], x: number, stroke: string, dash?: string) =>
    edge.top_mm.map((t, i) => (
      <rect
        key={i}
        x={x}
        y={y(t)}
        width="34"
        height={Math.max(0.6, y(edge.foot_mm[i]) - y(t))}
        fill={edge.colour[i]}
        fillOpacity={edge.cover[i] * 0.85}
        stroke={edge.top_mm.length < 60 ? stroke : "none"}
        strokeWidth="1.2"
        strokeDasharray={dash}
      />
    ));
  return (
    <figure className="w-[120px] shrink-0 max-[1150px]:w-full">
      <figcaption className="mb-1 text-[12.5px] text-moss">Edges in profile</figcaption>
      <svg
        viewBox="0 0 120 150"
        preserveAspectRatio="none"
        role="img"
        aria-label={`Edges in profile: they differ over ${seam.mismatch_mm.toFixed(2)} mm`}
        className="h-[150px] w-[120px] border border-rule bg-work max-[1150px]:h-[64px] max-[1150px]:w-full"
      >
        {differ.map(([a, b]) => (
          <rect key={a} x="1" y={y(a)} width="118" height={Math.max(1, y(b) - y(a))} fill="var(--color-weld)" opacity=".35" />
        ))}
        {bars(seam.right, 22, "var(--color-indigo)")}
        {bars(seam.left, 64, "var(--color-madder)", "4 2")}
      </svg>
      <p className="mt-0.5 flex justify-between text-[11.5px]">
        <span className="text-indigo">right edge</span>
        <span className="text-madder">next left</span>
      </p>
    </figure>
  );
}
