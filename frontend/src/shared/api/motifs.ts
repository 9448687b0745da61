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

type Known = Pick<MotifSummary, "id" | "version">;

const keyOf = ({ id, version, ink }: Wanted) => ["motif", id, version, ink] as const;
const latest = new Map<string, Motif>(); // by id and ink, and by id alone: shown until a newer version has come, or another ink

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
        const any = String(wanted[i].id);
        if (data) latest.set(key, data).set(any, data);
        return data ?? latest.get(key) ?? latest.get(any);
      }),
  });
}

/** Motifs with their shapes, null while any is still to come for the first time. */
export function useMotifs(summaries: MotifSummary[]): Motif[] | null {
  const found = useDrawn(summaries.map(({ id, version }) => ({ id, version, ink: null })));
  return useMemo(() => (found.every((motif) => motif !== undefined) ? (found as Motif[]) : null), [found]);
}

/**
 * The question for the motifs that a scene's pieces are numbered by; none while they have not come.
 * Scenes without versions go by the summaries, and those without motifs have these.
 */
export function useSceneMotifs(scenes: Scene[], summaries: Known[] = NO_MOTIFS): (scene: Scene) => Motif[] {
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
const NO_MOTIFS: Known[] = [];

/** The motifs that a scene's pieces are numbered by: those of its brush, or these in the inks of their pictures. */
function wantedOf(scene: Scene, summaries: Known[]): Wanted[] {
  const ids = scene.motif_ids ?? summaries.map(({ id }) => id);
  const own = ids.map((id, i) => {
    const version = scene.motif_versions?.[i] ?? summaries.find((m) => m.id === id)?.version ?? 0;
    return { id, version, ink: null };
  });
  return scene.inked?.map(({ place, ink }) => ({ ...own[place], ink })) ?? own;
}
