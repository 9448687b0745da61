import { useRef } from "react";
import type { Page } from "../../shared/api/client";
import { round } from "./view";

/** Left, top, right and foot in mm. */
export type Region = [number, number, number, number];

interface Props {
  page: Page;
  room: { width: number; height: number };
  region: Region | null;
  onPull: (region: Region | null) => void;
}

/** A page as it is laid, to pull a region over. */
export function PageRegion({ page, room, region, onPull }: Props) {
  const from = useRef<[number, number] | null>(null);
  const scale = Math.min((room.width - 40) / page.width_mm, (room.height - 40) / page.height_mm);
  const [left, top] = [(room.width - page.width_mm * scale) / 2, (room.height - page.height_mm * scale) / 2];
  const at = (event: React.PointerEvent): [number, number] => {
    const own = event.currentTarget.getBoundingClientRect();
    return [round((event.clientX - own.x) / scale, 2), round((event.clientY - own.y) / scale, 2)];
  };
  return (
    <div
      data-testid="pick-up-page"
      className="absolute cursor-crosshair touch-none border border-rule bg-white"
      style={{ left, top, width: page.width_mm * scale, height: page.height_mm * scale }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = at(event);
        onPull(null);
      }}
      onPointerMove={(event) => {
        if (!from.current) return;
        const [a, b] = [from.current, at(event)];
        onPull([Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[0], b[0]), Math.max(a[1], b[1])]);
      }}
      onPointerUp={() => {
        from.current = null;
      }}
    >
      <img
        alt={`${page.name} as laid`}
        draggable={false}
        className="pointer-events-none h-full w-full"
        src={`/api/pages/${page.id}/page.png?dpi=${Math.max(20, Math.min(200, Math.round(scale * 25.4)))}&ground=page`}
      />
      {region && (
        <span
          aria-hidden
          className="absolute border-2 border-dashed border-madder"
          style={{
            left: region[0] * scale,
            top: region[1] * scale,
            width: (region[2] - region[0]) * scale,
            height: (region[3] - region[1]) * scale,
          }}
        />
      )}
    </div>
  );
}
