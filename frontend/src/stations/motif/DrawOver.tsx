import { useEffect, useRef, useState } from "react";
import { api, kept, type Motif, type Schemas } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import { go } from "../../shared/ui/place";
import type { View } from "../../shared/view/view";
import { useBeginning } from "./beginning";
import { useOpenMotif } from "./openMotif";
import { round } from "./view";
import type { Drawing } from "./types";

/** Draw with the pen or mouse over the bench; what is let go is smoothed and laid on top. */
export function DrawOver({ view, drawing }: { view: View; drawing: Drawing }) {
  const { edit } = useOpenMotif();
  const set = useBeginning((now) => now.draw);
  const stroke = useRef<[number, number][]>([]);
  const [line, setLine] = useState("");
  const begin = useChange((stroke: Schemas["Draw"]) => kept<Motif>(api.POST("/api/motifs/drawn", { body: { stroke } })));
  const at = (event: React.PointerEvent): [number, number] => {
    const own = event.currentTarget.getBoundingClientRect();
    return [round((event.clientX - own.x - view.x) / view.scale), round((event.clientY - own.y - view.y) / view.scale)];
  };
  useEffect(() => {
    const leave = (event: KeyboardEvent): void => {
      if (event.key === "Escape") set(null);
    };
    window.addEventListener("keydown", leave);
    return () => window.removeEventListener("keydown", leave);
  }, [set]);
  const px = ([x, y]: [number, number]): string =>
    `${(view.x + x * view.scale).toFixed(1)} ${(view.y + y * view.scale).toFixed(1)}`;
  return (
    <svg
      data-testid="draw-over"
      className="absolute inset-0 h-full w-full cursor-crosshair touch-none"
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        stroke.current = [at(event)];
        setLine(`M${px(stroke.current[0])}`);
      }}
      onPointerMove={(event) => {
        if (!stroke.current.length) return;
        const place = at(event);
        stroke.current.push(place);
        setLine((now) => `${now}L${px(place)}`);
      }}
      onPointerUp={(event) => {
        const points =
          event.shiftKey && stroke.current.length > 1
            ? [stroke.current[0], stroke.current[stroke.current.length - 1]]
            : stroke.current;
        stroke.current = [];
        setLine("");
        if (points.length < 2) return;
        const drawn = {
          op: "draw",
          points,
          width_mm: drawing.width_mm,
          colour: "#20352c",
          closed: drawing.closed,
          straight: event.shiftKey,
        } as const;
        if (drawing.fresh)
          begin.mutate(drawn, { onSuccess: (made) => (set({ ...drawing, fresh: false }), go("motif", made.id)) });
        else edit.keep(drawn);
      }}
    >
      <path
        d={line}
        fill={drawing.closed ? "#20352c22" : "none"}
        stroke="var(--color-madder)"
        strokeWidth={Math.max(1.5, drawing.width_mm * view.scale)}
        strokeLinecap="round"
        strokeLinejoin="round"
        opacity=".75"
      />
    </svg>
  );
}
