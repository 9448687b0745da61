import { useCallback } from "react";
import type { Motif } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { fitView } from "../../shared/view/view";
import { laidArtwork } from "../../shared/view/stamp";
import { paintTrial, paintUnder, underKey } from "./sheetPainter";
import type { Paint, Under } from "../../shared/view/layers";
import { WorkCanvas } from "../../shared/view/WorkCanvas";

interface Props {
  scene: Scene;
  motifs: Motif[];
  box: [number, number];
  on: { night: boolean; ground: string };
  chosen?: number | null;
}

export const MARGIN_PX = 6;
const WHERE = { scale: 0, x: 0, y: 0 }; // it follows from the box

/** A trial line with the brush on it and a ring round every finding. */
export function TrialScene({ scene, motifs, box, on, chosen }: Props) {
  const [width, height] = box;
  const { night } = on;
  const under = {
    key: `${night} ${width} ${height} ${underKey(scene, WHERE, on.ground)}`,
    paint: (ctx, size, ratio) => paintUnder(ctx, scene, fitView(size.width, size.height, box, MARGIN_PX), ratio, size, on),
  } satisfies Under;
  const paint = useCallback<Paint>(
    (ctx, size, ratio) => {
      paintTrial(
        ctx,
        scene,
        motifs.map(laidArtwork),
        fitView(size.width, size.height, [width, height], MARGIN_PX),
        ratio,
        size,
        night,
        chosen ?? null,
      );
    },
    [scene, motifs, width, height, night, chosen],
  );
  return (
    <WorkCanvas
      paint={paint}
      under={under}
      label={`${scene.name}: ${scene.refused ?? scene.verdict}`}
      testId={`trial-${scene.key}`}
      pieces={scene.pieces}
    />
  );
}
