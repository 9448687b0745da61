import { useCallback, useRef } from "react";
import type { Motif } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import type { Paint } from "../../shared/view/layers";
import { laidOf, paintPieces } from "../../shared/view/painter";
import { fitView } from "../../shared/view/view";
import { WorkCanvas } from "../../shared/view/WorkCanvas";

const HELD_MS = 250; // from then on it is held, and not pressed; chosen
const MARGIN_PX = 3;

interface Props {
  n: number;
  scene: Scene;
  motifs: Motif[];
  ground: string;
  chosen: boolean;
  pinned: boolean;
  onTake: () => void;
  onHold: (on: boolean) => void;
  onPin: () => void;
}

/** One arrangement: its picture, its number, and the pin. */
export function DealCell({ n, scene, motifs, ground, chosen, pinned, onTake, onHold, onPin }: Props) {
  const timer = useRef(0);
  const held = useRef(false);
  const paint = useCallback<Paint>(
    (ctx, size, ratio) => {
      ctx.fillStyle = ground;
      ctx.fillRect(0, 0, size.width, size.height);
      const view = fitView(size.width, size.height, (scene.box ?? [100, 42]) as [number, number], MARGIN_PX);
      paintPieces(ctx, laidOf(motifs, scene), view, ratio, size);
    },
    [scene, motifs, ground],
  );
  const letGo = (): void => {
    clearTimeout(timer.current);
    if (held.current) onHold(false);
  };
  return (
    <div className={`border ${chosen ? "border-madder" : "border-rule"}`}>
      <button
        aria-label={`Arrangement ${n}`}
        aria-pressed={chosen}
        className="block h-[40px] w-full touch-none"
        onPointerDown={() => {
          held.current = false;
          timer.current = window.setTimeout(() => {
            held.current = true;
            onHold(true);
          }, HELD_MS);
        }}
        onPointerUp={letGo}
        onPointerLeave={letGo}
        onPointerCancel={letGo}
        onClick={() => {
          if (!held.current) onTake();
          held.current = false;
        }}
      >
        <WorkCanvas paint={paint} label={`Arrangement ${n}, ${scene.pieces} pieces`} />
      </button>
      <div className="flex justify-between px-1 text-[11px] leading-[18px] text-moss">
        <span>{n}</span>
        <button
          aria-pressed={pinned}
          aria-label={`Pin arrangement ${n}`}
          className="aria-pressed:font-bold aria-pressed:text-madder"
          onClick={onPin}
        >
          {pinned ? "pinned" : "pin"}
        </button>
      </div>
    </div>
  );
}
