import { useRef, useState } from "react";
import type { Preparation } from "../../shared/api/client";
import { useSize } from "../../shared/view/WorkCanvas";
import { ClearedPicture, SeenChoice, type Seen } from "./ClearedPicture";
import { colourAt } from "./colourAt";
import { useOpenPicture } from "./openPicture";
import { PictureMarks } from "./PictureMarks";
import type { Hand } from "./types";

const WORDS: Record<Hand, string> = {
  region: "Pull over the part to take; a short press takes all.",
  belongs: "Mark what belongs to the thing.",
  belongs_not: "Mark what does not belong.",
  colour: "Press the colour to clear.",
};

/** The picture itself: pull a region over it, mark what belongs, pick a colour. */
export function PictureSource() {
  const { original, how, hand, set } = useOpenPicture();
  const [chosen, setChosen] = useState<Seen | null>(null);
  const [arrived, setArrived] = useState(false);
  // a colour is picked, a thing marked and a trace compared on the picture itself
  const seen = hand !== "region" ? "picture" : (chosen ?? (how.trace ? "picture" : "checks"));
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
          onLoad={() => setArrived(true)}
        />
        <ClearedPicture seen={seen} scale={scale} />
        <PictureMarks region={region} scale={scale} />
      </div>
      {!arrived && (
        <p role="status" className="pointer-events-none absolute inset-x-0 top-1/2 text-center text-moss">
          Reading {original.name}…
        </p>
      )}
      <p className="absolute bottom-1 left-4 bg-work/80 px-1 text-[12.5px] text-moss">{WORDS[hand]}</p>
      {hand === "region" && <SeenChoice seen={seen} onSet={setChosen} />}
    </div>
  );
}
