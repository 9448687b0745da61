import { useQueries } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, kept, type Motif, type MotifSummary } from "./client";
import { queryClient } from "./queries";
import type { Scene } from "./scenes";

/** A motif in a version, as drawn or in an ink. */
interface Wanted {
  id: number;
  version: number;
  ink: string | null;
}

const keyOf = ({ id, version, ink }: Wanted) => ["motif", id, version, ink] as const;
const latest = new Map<string, Motif>(); // by id and ink: shown until a newer version has come

/** Take a motif that a change brought along, so that it is not asked for once more. */
export function learn(motif: Motif): void {
  queryClient.setQueryData(keyOf({ id: motif.id, version: motif.version, ink: null }), motif);
}

/** Motifs with their shapes, each asked for once a version; in the order wanted, undefined until they have come. */
function useDrawn(wanted: Wanted[]): (Motif | undefined)[] {
  return useQueries({
    queries: wanted.map((each) => ({
      queryKey: keyOf(each),
      queryFn: () => {
        const query = each.ink ? { ink: each.ink } : {};
        return kept<Motif>(api.GET("/api/motifs/{id}", { params: { path: { id: each.id }, query } }));
      },
    })),
    combine: (answers) =>
      answers.map(({ data }, i) => {
        const key = `${wanted[i].id} ${wanted[i].ink}`;
        if (data) latest.set(key, data);
        return data ?? latest.get(key);
      }),
  });
}

/** Motifs with their shapes, null while any is still to come for the first time. */
export function useMotifs(summaries: MotifSummary[]): Motif[] | null {
  const found = useDrawn(summaries.map(({ id, version }) => ({ id, version, ink: null })));
  return useMemo(() => (found.every((motif) => motif !== undefined) ? (found as Motif[]) : null), [found]);
}

/**
 * The question for the motifs of a scene, in its line's ink; none while they have not come.
 * Scenes without versions go by the summaries.
 */
export function useSceneMotifs(scenes: Scene[], summaries: MotifSummary[] = []): (scene: Scene) => Motif[] {
  const wanted = useMemo(() => {
    const each = new Map<string, Wanted>();
    for (const scene of scenes) for (const one of wantedOf(scene, summaries)) each.set(keyOf(one).join(" "), one);
    return [...each.values()];
  }, [scenes, summaries]);
  const found = useDrawn(wanted);
  return useMemo(() => {
    const byKey = new Map(wanted.map((one, i) => [keyOf(one).join(" "), found[i]]));
    const ofScene = new Map(
      scenes.map((scene) => {
        const own = wantedOf(scene, summaries).map((one) => byKey.get(keyOf(one).join(" ")));
        return [scene, own.every((motif) => motif !== undefined) ? (own as Motif[]) : NONE] as const;
      }),
    );
    return (scene) => ofScene.get(scene) ?? NONE;
  }, [scenes, summaries, wanted, found]);
}

const NONE: Motif[] = [];

function wantedOf(scene: Scene, summaries: MotifSummary[]): Wanted[] {
  return (scene.motif_ids ?? []).map((id, i) => {
    const version = scene.motif_versions?.[i] ?? summaries.find((m) => m.id === id)?.version ?? 0;
    return { id, version, ink: scene.ink ?? null };
  });
}
