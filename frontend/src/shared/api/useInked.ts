import { useQueries } from "@tanstack/react-query";
import { api, kept, type Motif } from "./client";
import type { Scene } from "./scenes";

/** Return the question for a scene's motif, in the line's ink once the server has given it. */
export function useMotifs(motifs: Motif[], scenes: Scene[]): (scene: Scene) => Motif | undefined {
  const wanted = new Map(scenes.filter((s) => s.ink).map((s) => [`${s.motif_id} ${s.motif_version} ${s.ink}`, s]));
  const keys = [...wanted.keys()];
  const answers = useQueries({
    queries: keys.map((key) => ({
      queryKey: ["inked", key],
      queryFn: () => kept<Motif>(api.GET("/api/motifs/{id}", { params: { path: { id: wanted.get(key)!.motif_id! }, query: { ink: wanted.get(key)!.ink } } })),
    })),
  });
  return (scene) => {
    const inked = scene.ink ? answers[keys.indexOf(`${scene.motif_id} ${scene.motif_version} ${scene.ink}`)]?.data : undefined;
    return inked ?? motifs.find((m) => m.id === scene.motif_id);
  };
}
