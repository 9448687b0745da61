import { useCallback } from "react";
import type { Motif, Workshop } from "../api/client";
import { useSceneMotifs } from "../api/motifs";
import { useLay } from "../api/useLay";
import type { Scene } from "../api/scenes";
import { blends, isForNight, laidOf, paintPieces } from "./painter";
import type { Paint } from "./layers";
import { fitView } from "./view";
import { WorkCanvas } from "./WorkCanvas";

const PAPER = "#ffffff"; // what swatches lie on
const NIGHT = "#16233d"; // and those that only a dark ground shows
const NOTHING = {};
const NO_SCENES: Scene[] = [];
const NO_MOTIFS: Motif[] = [];

/** A brush laid on the standard swatch, with its motifs; missing until they have come. */
export interface BrushSwatch {
  scene: Scene;
  motifs: Motif[];
}

/** Every brush laid on the standard swatch, by its id; asked anew when brushes or motifs change. */
export function useSwatches({ brushes, motifs }: Workshop): (brushId: number) => BrushSwatch | undefined {
  const versions = [...brushes, ...motifs].map((b) => `${b.id}.${b.version}`).join(" ");
  const { laid } = useLay(`/api/shelf/lay#${versions}`, NOTHING, { cures: false });
  const scenes = laid?.scenes ?? NO_SCENES;
  const motifsOf = useSceneMotifs(scenes, motifs);
  return (brushId) => {
    const scene = scenes.find((s) => s.brush_id === brushId);
    return scene && { scene, motifs: motifsOf(scene) };
  };
}

export function Swatch({
  of: { scene, motifs } = { scene: undefined, motifs: NO_MOTIFS },
  label,
}: {
  of: Partial<BrushSwatch> | undefined;
  label: string;
}) {
  const paint = useCallback<Paint>(
    (ctx, size, ratio) => {
      if (!scene?.box || !motifs) return;
      const laid = laidOf(motifs, scene);
      const night = isForNight(laid);
      if (night || blends(scene)) {
        ctx.fillStyle = night ? NIGHT : PAPER;
        ctx.fillRect(0, 0, size.width, size.height);
      }
      paintPieces(ctx, laid, fitView(size.width, size.height, scene.box as [number, number], 3), ratio, size);
    },
    [scene, motifs],
  );
  return <WorkCanvas paint={paint} label={label} />;
}
