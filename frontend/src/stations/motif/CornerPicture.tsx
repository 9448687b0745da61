import { useCallback } from "react";
import type { Motif } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import type { Paint } from "../../shared/view/layers";
import { strokeHairline } from "../../shared/view/marks";
import { laidOf, paintPieces } from "../../shared/view/painter";
import type { View } from "../../shared/view/view";
import { WorkCanvas } from "../../shared/view/WorkCanvas";

interface Props {
  scene: Scene;
  motifs: Motif[];
  view: View;
  night: boolean;
  name: string;
}

/** A corner with its two runs, as the brush lays them. */
export function CornerPicture({ scene, motifs, view, night, name }: Props) {
  const paint = useCallback<Paint>(
    (ctx, area, ratio) => {
      strokeHairline(ctx, scene.path ?? "", view, ratio, night ? "#b9746b" : "#c98d84", 1, [1, 4]);
      paintPieces(ctx, laidOf(motifs, scene), view, ratio, area);
    },
    [scene, motifs, view, night],
  );
  return <WorkCanvas paint={paint} label={`A corner of ${name}`} testId="corner" className="absolute inset-0" />;
}
