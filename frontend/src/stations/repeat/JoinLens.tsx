import { useCallback } from "react";
import type { Motif } from "../../shared/api/client";
import { EXTENT, JOIN, type Scene } from "../../shared/api/scenes";
import { paintPieces, stampOf, type View } from "../../shared/view/painter";
import { WorkCanvas, type Paint } from "../../shared/view/WorkCanvas";

const DIAMETER = 86;
const TOP = 192;
const EVERY = 196;

export const LENS = {
  /** Where the i-th lens hangs, in px, in the room left of `right`. */
  left: (i: number, right: number) => 108 + i * Math.min(EVERY, (right - 150) / 4),
};

interface Props {
  scene: Scene;
  motif: Motif;
  index: number;
  view: View;
  left: number;
  night: boolean;
}

/** One join magnified, with the facing edges, the room between them, and its figures. */
export function JoinLens({ scene, motif, index, view, left, night }: Props) {
  const join = scene.joins.subarray(index * JOIN.width, (index + 1) * JOIN.width);
  const before = scene.extents.subarray(index * EXTENT.width, (index + 1) * EXTENT.width);
  const gap = join[JOIN.gap];
  const edge = before[EXTENT.s] + before[EXTENT.after];
  const shown = Math.max(Math.abs(gap) * 2.4, (before[EXTENT.before] + before[EXTENT.after]) * 0.28);
  const scale = DIAMETER / shown;
  const middle = edge + gap / 2;
  const paint = useCallback<Paint>(
    (ctx, size, ratio) => {
      const close: View = { scale, x: size.width / 2 - middle * scale, y: size.height / 2 };
      ctx.save();
      ctx.beginPath();
      ctx.arc(size.width / 2, size.height / 2, size.width / 2 - 1.5, 0, 2 * Math.PI);
      ctx.clip();
      ctx.fillStyle = night ? "#1d2624" : "#ffffff";
      ctx.fillRect(0, 0, size.width, size.height);
      paintPieces(ctx, stampOf(motif), scene.matrices, close, ratio, size);
      const [a, b] = [edge, edge + gap].map((s) => close.x + s * scale);
      ctx.fillStyle = gap >= 0 ? "#c9971c33" : "#2c4a8440";
      ctx.fillRect(Math.min(a, b), 0, Math.abs(b - a), size.height);
      ctx.strokeStyle = "#a63a2f";
      ctx.lineWidth = 1;
      ctx.beginPath();
      for (const x of [a, b]) {
        ctx.moveTo(x, 0);
        ctx.lineTo(x, size.height);
      }
      ctx.stroke();
      ctx.restore();
      ctx.strokeStyle = night ? "#ffffff" : "#20352c";
      ctx.lineWidth = 1.6;
      ctx.beginPath();
      ctx.arc(size.width / 2, size.height / 2, size.width / 2 - 1.5, 0, 2 * Math.PI);
      ctx.stroke();
    },
    [scene, motif, scale, middle, edge, gap, night],
  );
  const x = view.x + middle * view.scale;
  const y = view.y;
  const cx = left + DIAMETER / 2;
  const rows: [string, string][] = [
    [gap < 0 ? "overlap" : "gap", `${Math.abs(gap).toFixed(2)} mm`],
    ["step", `${join[JOIN.step].toFixed(2)} mm`],
    ["kink", `${join[JOIN.kink].toFixed(1)}°`],
  ];
  return (
    <>
      <svg aria-hidden className="pointer-events-none absolute inset-0 h-full w-full">
        <path d={`M${x} ${y}C${x} ${y + 46} ${cx} ${TOP - 46} ${cx} ${TOP}`} fill="none" stroke={night ? "#e08a7e" : "var(--color-madder)"} strokeWidth="1" />
        <circle cx={x} cy={y} r="2.5" fill={night ? "#e08a7e" : "var(--color-madder)"} />
      </svg>
      <div className="absolute flex items-center gap-2.5" style={{ left, top: TOP }} data-testid={`lens-${index}`}>
        <div style={{ width: DIAMETER, height: DIAMETER }}>
          <WorkCanvas paint={paint} label={`Join ${index + 1}, magnified`} />
        </div>
        <dl className="grid grid-cols-[auto_auto] gap-x-1.5 text-[12px] leading-[1.5]">
          {rows.map(([word, figure]) => (
            <div key={word} className="contents">
              <dt className={night ? "text-white/75" : "text-moss"}>{word}</dt>
              <dd className="font-bold">{figure}</dd>
            </div>
          ))}
        </dl>
      </div>
    </>
  );
}
