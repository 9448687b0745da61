import { useCallback, useMemo } from "react";
import type { Motif } from "../../shared/api/client";
import { useSceneMotifs } from "../../shared/api/motifs";
import type { Scene } from "../../shared/api/scenes";
import { useOpenBench } from "./openBench";

/** The question for the motifs that a scene's pieces are numbered by: the brush's, where their pictures are laid as drawn. */
export function useInked(scenes: Scene[]): (scene: Scene) => Motif[] {
  const { motifs } = useOpenBench();
  const inked = useMemo(() => scenes.filter((scene) => scene.inked), [scenes]);
  const of = useSceneMotifs(inked, motifs);
  return useCallback((scene) => (scene.inked ? of(scene) : motifs), [of, motifs]);
}

/** The motifs that one scene's pieces are numbered by. */
export function useMotifsOf(scene: Scene | undefined): Motif[] {
  const { motifs } = useOpenBench();
  const of = useInked(useMemo(() => (scene ? [scene] : []), [scene]));
  return scene ? of(scene) : motifs;
}
