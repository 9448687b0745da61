import { useCallback, useMemo, useRef, useState } from "react";
import { api, kept, type Motif } from "../../shared/api/client";
import { useChange, useLimits, withVersion } from "../../shared/api/queries";
import { useLay } from "../../shared/api/useLay";
import { EXTENT } from "../../shared/api/scenes";
import { paintPieces, stampOf, type View } from "../../shared/view/painter";
import { useSize, WorkCanvas, type Paint } from "../../shared/view/WorkCanvas";

const PALE = 0.25;

/** The motif on its frame between its own neighbours, its base line to drag, and the seam close up. */
export function MotifBench({ motif }: { motif: Motif }) {
  const [box, size] = useSize<HTMLDivElement>();
  const [dragged, setDragged] = useState<number | null>(null);
  const limits = useLimits();
  const change = useChange((base_line_mm: number) =>
    withVersion("motif", motif, (version) => kept(api.PATCH("/api/motifs/{id}", { params: { path: { id: motif.id } }, body: { base_line_mm, version, trim: false } }))),
  );
  const settings = limits.data?.defaults;
  const asked = useMemo(
    () => (settings ? { motif_id: motif.id, settings, flat_mm: motif.width_mm * 3.0001, trials: false } : null),
    [motif.id, motif.width_mm, settings],
  );
  const { laid } = useLay(`/api/bench/lay#${motif.version}`, asked, { cures: false });
  const flat = laid?.scenes[0];

  const base = dragged ?? motif.base_line_mm;
  const scale = Math.max(0.01, Math.min((size.width - 40) / (2.5 * motif.width_mm), (size.height - 110) / motif.height_mm));
  const left = (size.width - motif.width_mm * scale) / 2;
  const top = (size.height - motif.height_mm * scale) / 2;
  const laidLeft = flat ? flat.extents[EXTENT.width + EXTENT.s] - flat.extents[EXTENT.width + EXTENT.before] : 0;

  const paint = useCallback<Paint>(
    (ctx, area, ratio) => {
      if (!flat) return;
      const view: View = { scale, x: left - laidLeft * scale, y: top + motif.base_line_mm * scale };
      for (let i = 0; i < flat.pieces; i++) {
        ctx.globalAlpha = i === 1 ? 1 : PALE;
        paintPieces(ctx, stampOf(motif), flat.matrices.subarray(i * 6, i * 6 + 6), view, ratio, area);
      }
      ctx.globalAlpha = 1;
    },
    [flat, motif, scale, left, top, laidLeft],
  );
  const seam = useCallback<Paint>(
    (ctx, area, ratio) => {
      if (!flat || flat.pieces < 3) return;
      const close = Math.min((8 * 96) / 25.4, (area.height / motif.height_mm) * 2.2);
      const at = flat.extents[2 * EXTENT.width + EXTENT.s] - flat.extents[2 * EXTENT.width + EXTENT.before];
      paintPieces(ctx, stampOf(motif), flat.matrices.subarray(6), { scale: close, x: area.width / 2 - at * close, y: area.height / 2 + (motif.base_line_mm - motif.height_mm / 2) * close }, ratio, area);
      ctx.strokeStyle = "#a63a2f";
      ctx.setLineDash([3, 3]);
      ctx.beginPath();
      ctx.moveTo(area.width / 2, 0);
      ctx.lineTo(area.width / 2, area.height);
      ctx.stroke();
      ctx.setLineDash([]);
    },
    [flat, motif],
  );

  const y = top + base * scale;
  const hold = useRef<{ y: number; base: number } | null>(null);
  const toBase = (event: React.PointerEvent): number => {
    const mm = hold.current!.base + (event.clientY - hold.current!.y) / scale;
    return Number(Math.min(motif.height_mm * 2, Math.max(-motif.height_mm, mm)).toFixed(2));
  };
  return (
    <>
      <div ref={box} className="weave relative min-h-0 flex-1 overflow-hidden">
        <WorkCanvas paint={paint} label={`${motif.name} between its own neighbours`} testId="motif-bench" className="absolute inset-0" />
        <svg className="pointer-events-none absolute inset-0 h-full w-full">
          <rect x={left} y={top} width={motif.width_mm * scale} height={motif.height_mm * scale} fill="none" stroke="var(--color-indigo)" strokeWidth="1.2" />
          <path d={`M0 ${y}H${size.width}`} stroke="var(--color-madder)" strokeDasharray="1.5 4" strokeWidth="1.4" />
          {[left, left + motif.width_mm * scale].map((x) => (
            <circle key={x} cx={x} cy={y} r="6" fill="#fff" stroke="var(--color-madder)" strokeWidth="2" />
          ))}
          <g
            tabIndex={0}
            role="slider"
            aria-label="Base line"
            aria-valuenow={base}
            aria-valuetext={`${base.toFixed(2)} mm from the top`}
            className="pointer-events-auto cursor-ns-resize"
            onPointerDown={(event) => {
              (event.currentTarget as Element).setPointerCapture(event.pointerId);
              hold.current = { y: event.clientY, base: motif.base_line_mm };
            }}
            onPointerMove={(event) => hold.current && setDragged(toBase(event))}
            onPointerUp={(event) => {
              if (!hold.current) return;
              const next = toBase(event);
              hold.current = null;
              change.mutate(next, { onSettled: () => setDragged(null) });
            }}
            onKeyDown={(event) => {
              const way = { ArrowUp: -1, ArrowDown: 1 }[event.key];
              if (!way) return;
              event.preventDefault();
              change.mutate(Number((motif.base_line_mm + way * (event.shiftKey ? 1 : 0.1)).toFixed(2)));
            }}
          >
            <rect x={14} y={y - 12} width={148} height={24} fill="var(--color-madder)" rx="2" />
            <text x={24} y={y + 4.5} fill="#fff" fontSize="12.5" className="font-semibold">
              base line {base.toFixed(2)} mm
            </text>
          </g>
          <text x={left + (motif.width_mm * scale) / 2} y={top - 9} textAnchor="middle" fontSize="12.5" fill="var(--color-indigo)">
            {motif.width_mm.toFixed(2)} mm
          </text>
          <text x={left + motif.width_mm * scale + 12} y={top + 14} fontSize="12.5" fill="var(--color-indigo)">
            {motif.height_mm.toFixed(2)} mm
          </text>
        </svg>
        <p className="absolute bottom-2 left-5 text-[12.5px] text-moss">Neighbours are pale: what is drawn here is always seen repeating, end to end.</p>
      </div>
      <section aria-label="Seam" className="h-[190px] shrink-0 border-t border-rule bg-work px-5 pt-2 pb-3">
        <h2 className="mb-1 text-[15px]">
          Seam, close up <span className="font-sans text-[12.5px] font-normal text-moss">the right edge of one piece against the left edge of the next</span>
        </h2>
        <div className="h-[136px] border border-rule">
          <WorkCanvas paint={seam} label="The seam between two pieces, magnified" testId="seam" />
        </div>
      </section>
    </>
  );
}
