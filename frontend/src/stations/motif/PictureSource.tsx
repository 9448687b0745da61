import { useRef, useState } from "react";
import { type Original, type Preparation } from "../../shared/api/client";
import { useSize } from "../../shared/view/WorkCanvas";
import type { Preview } from "./usePicture";

export type Hand = "region" | "belongs" | "belongs_not" | "colour";

interface SourceProps {
  original: Original;
  how: Preparation;
  hand: Hand;
  set: (more: Partial<Preparation>) => void;
  frame: Preview["frame_px"] | undefined;
}

/** The picture itself: pull a region over it, mark what belongs, pick a colour. */
export function Source({ original, how, hand, set, frame }: SourceProps) {
  const [box, size] = useSize<HTMLDivElement>();
  const picture = useRef<HTMLImageElement>(null);
  const scale = Math.min((size.width - 30) / original.width_px, (size.height - 30) / original.height_px) || 1;
  const [left, top] = [(size.width - original.width_px * scale) / 2, (size.height - original.height_px * scale) / 2];
  const from = useRef<[number, number] | null>(null);
  const [pulled, setPulled] = useState<Preparation["region"]>(null);
  const region = pulled ?? how.region;
  const at = (event: React.PointerEvent): [number, number] => {
    const own = event.currentTarget.getBoundingClientRect();
    const clamp = (v: number, most: number): number => Math.round(Math.max(0, Math.min(most, v)));
    return [
      clamp((event.clientX - own.x) / scale, original.width_px),
      clamp((event.clientY - own.y) / scale, original.height_px),
    ];
  };
  const between = (a: [number, number], b: [number, number]): Preparation["region"] => [
    Math.min(a[0], b[0]),
    Math.min(a[1], b[1]),
    Math.abs(a[0] - b[0]),
    Math.abs(a[1] - b[1]),
  ];
  const mark = (place: [number, number]): void => {
    const key = hand === "belongs" ? "belongs" : "belongs_not";
    set({ [key]: [...(how[key] ?? []), place], mark_px: Math.max(4, Math.round(10 / scale)) });
  };
  return (
    <div ref={box} className="weave relative min-w-0 flex-1">
      <div
        data-testid="picture-source"
        data-scale={scale}
        className="absolute cursor-crosshair touch-none"
        style={{ left, top, width: original.width_px * scale, height: original.height_px * scale }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          from.current = at(event);
          if (hand === "colour" && picture.current?.complete) set({ clear: colourAt(picture.current, from.current, original) });
          else if (hand !== "region") mark(from.current);
        }}
        onPointerMove={(event) => {
          if (!from.current || hand === "colour") return;
          const place = at(event);
          if (hand === "region") setPulled(between(from.current, place));
          else if (Math.hypot(place[0] - from.current[0], place[1] - from.current[1]) > 8 / scale) mark((from.current = place));
        }}
        onPointerUp={(event) => {
          const first = from.current;
          from.current = null;
          if (hand !== "region" || !first) return;
          const own = between(first, at(event));
          setPulled(null);
          set({ region: own && own[2] > 3 && own[3] > 3 ? own : null });
        }}
      >
        <img
          ref={picture}
          alt={original.name}
          draggable={false}
          className="pointer-events-none h-full w-full"
          src={`/api/originals/${original.sha}/shown.png`}
        />
        <svg className="pointer-events-none absolute inset-0 h-full w-full overflow-visible">
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
      </div>
      <p className="absolute bottom-1 left-4 bg-work/80 px-1 text-[12.5px] text-moss">
        {
          {
            region: "Pull over the part to take; a short press takes all.",
            belongs: "Mark what belongs to the thing.",
            belongs_not: "Mark what does not belong.",
            colour: "Press the colour to clear.",
          }[hand]
        }
      </p>
    </div>
  );
}

function colourAt(image: HTMLImageElement, place: [number, number], original: Original): string {
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = 1;
  const ctx = canvas.getContext("2d")!;
  const ratio = image.naturalWidth / original.width_px;
  ctx.drawImage(image, Math.floor(place[0] * ratio), Math.floor(place[1] * ratio), 1, 1, 0, 0, 1, 1);
  const [r, g, b] = ctx.getImageData(0, 0, 1, 1).data;
  return `#${[r, g, b].map((v) => v.toString(16).padStart(2, "0")).join("")}`;
}
