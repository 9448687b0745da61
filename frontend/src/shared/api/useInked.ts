import { useQueries } from "@tanstack/react-query";
import { api, kept, type Motif } from "./client";
import type { Scene } from "./scenes";

/** Return the question for the motifs of a scene's repeat, in the line's ink once the server has given them. */
export function useMotifs(motifs: Motif[], scenes: Scene[]): (scene: Scene) => Motif[] {
  const wanted = new Map<string, { id: number; ink: string }>();
  for (const scene of scenes) {
    if (scene.ink) (scene.motif_ids ?? []).forEach((id, i) => wanted.set(keyOf(scene, i), { id, ink: scene.ink! }));
  }
  const keys = [...wanted.keys()];
  const answers = useQueries({
    queries: keys.map((key) => ({
      queryKey: ["inked", key],
      queryFn: () => kept<Motif>(api.GET("/api/motifs/{id}", { params: { path: { id: wanted.get(key)!.id }, query: { ink: wanted.get(key)!.ink } } })),
    })),
  });
  return (scene) =>
    (scene.motif_ids ?? []).flatMap((id, i) => {
      const inked = scene.ink ? answers[keys.indexOf(keyOf(scene, i))]?.data : undefined;
      return inked ?? motifs.find((m) => m.id === id) ?? [];
    });
}

const keyOf = (scene: Scene, i: number): string => `${scene.motif_ids?.[i]} ${scene.motif_versions?.[i]} ${scene.ink}`;
