import { useCallback } from "react";
import type { Motif } from "../api/client";
import { useLay } from "../api/useLay";
import type { Scene } from "../api/scenes";
import { fitView, laidOf, paintPieces } from "./painter";
import type { Paint } from "./layers";
import { WorkCanvas } from "./WorkCanvas";

const NOTHING = {};

/** Every brush laid on the standard swatch; asked anew when brushes or motifs change. */
export function useSwatches(brushes: { id: number; version: number }[], motifs: { id: number; version: number }[]): Scene[] {
  const versions = [...brushes, ...motifs].map((b) => `${b.id}.${b.version}`).join(" ");
  const { laid } = useLay(`/api/shelf/lay#${versions}`, NOTHING, { cures: false });
  return laid?.scenes ?? [];
}

export function Swatch({ scene, motifs, label }: { scene: Scene | undefined; motifs: Motif[]; label: string }) {
  const paint = useCallback<Paint>(
    (ctx, size, ratio) => {
      if (!scene?.box) return;
      const own = (scene.motif_ids ?? []).flatMap((id) => motifs.find((m) => m.id === id) ?? []);
      paintPieces(ctx, laidOf(own, scene), fitView(size.width, size.height, scene.box, 3), ratio, size);
    },
    [scene, motifs],
  );
  return <WorkCanvas paint={paint} label={label} />;
}
