import { useCallback } from "react";
import type { Motif } from "../api/client";
import { useLay } from "../api/useLay";
import type { Scene } from "../api/scenes";
import { fitView, paintPieces, stampOf } from "./painter";
import { WorkCanvas, type Paint } from "./WorkCanvas";

const NOTHING = {};

/** Every brush laid on the standard swatch; asked anew when brushes or motifs change. */
export function useSwatches(brushes: { id: number; version: number }[], motifs: { id: number; version: number }[]): Scene[] {
  const versions = [...brushes, ...motifs].map((b) => `${b.id}.${b.version}`).join(" ");
  const { laid } = useLay(`/api/shelf/lay#${versions}`, NOTHING, { cures: false });
  return laid?.scenes ?? [];
}

export function Swatch({ scene, motif, label }: { scene: Scene | undefined; motif: Motif | undefined; label: string }) {
  const paint = useCallback<Paint>(
    (ctx, size, ratio) => {
      if (!scene?.box || !motif) return;
      paintPieces(ctx, stampOf(motif), scene.matrices, fitView(size.width, size.height, scene.box, 3), ratio, size);
    },
    [scene, motif],
  );
  return <WorkCanvas paint={paint} label={label} />;
}
