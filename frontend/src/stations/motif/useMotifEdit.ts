import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { api, kept, Refusal, type Edit, type Motif, type MotifBench } from "../../shared/api/client";
import { learn } from "../../shared/api/motifs";
import { isKeeping, queryClient, useChange, withVersion } from "../../shared/api/queries";
import { runOf } from "../../shared/api/runs";
import { AskChannel } from "../../shared/api/asking";
import { useWork } from "./work";

/** A motif as kept and as a change in the hand would make it, with its seam and weight; one motif a mount. */
export function useMotifEdit(motif: Motif, pointsOf: number | null) {
  const path = { path: { id: motif.id } };
  const benchOf = (version: number) => ({
    queryKey: ["motif-bench", motif.id, version, pointsOf],
    queryFn: () =>
      kept<MotifBench>(api.POST("/api/motifs/{id}/draft", { params: path, body: { points_of: pointsOf, client: "", seq: 0 } })),
  });
  const own = useQuery({ ...benchOf(motif.version), placeholderData: keepPreviousData });
  const draft = useWork((work) => work.draft);
  const refusal = useWork((work) => work.refusal);
  const showDraft = useWork((work) => work.show);
  const refuse = useWork((work) => work.refuse);
  const dropDraft = useWork((work) => work.drop);
  const channel = useRef<AskChannel<MotifBench> | null>(null);
  const open = useRef(false);
  useEffect(() => {
    channel.current = new AskChannel((reply) => reply.json() as Promise<MotifBench>);
    return () => channel.current?.close();
  }, []);

  const change = useChange((input: { edit: Edit; label?: string; merge_key?: string }) =>
    withVersion("motif", motif, (version) =>
      kept<Motif>(
        api.POST("/api/motifs/{id}/edit", {
          params: path,
          body: { version, edit: input.edit, label: input.label ?? null, merge_key: input.merge_key ?? "" },
        }),
      ),
    ).then(async (after) => {
      learn(after);
      await queryClient.prefetchQuery(benchOf(after.version)); // a change is kept when what it made is on the bench
      return after;
    }),
  );
  const held = draft && (draft.of === motif.version || own.isPlaceholderData) ? draft : null;
  const drop = (): void => {
    open.current = false;
    dropDraft();
  };
  return {
    bench: held?.bench ?? own.data ?? null,
    /** Where the shown motif's origin lies in the kept one, in mm. */
    originX: held?.origin[0] ?? 0,
    originY: held?.origin[1] ?? 0,
    /** As kept: what the view is fitted to, so that it stands still while something is in the hand. */
    standing: own.data ?? null,
    refusal,
    /** Show a change while it is in the hand. */
    show: (edit: Edit): void => {
      open.current = true;
      channel.current?.ask(
        `/api/motifs/${motif.id}/draft`,
        { edit, points_of: pointsOf },
        (bench) => {
          if (!open.current) return;
          // a frame that is pulled moves the origin of everything that is said in its mm
          showDraft({ of: motif.version, bench, origin: edit.op === "frame" ? [edit.left_mm, edit.top_mm] : [0, 0] });
        },
        (why: Refusal) => refuse(why.message),
      );
    },
    drop,
    /** Keep a change; what was shown stays until the kept one is there. */
    keep: (edit: Edit, more: { label?: string; merge_key?: string; then?: (motif: Motif) => void } = {}): void => {
      open.current = false;
      refuse(null);
      const then = (after: Motif): void => more.then?.(after);
      const merge_key = more.merge_key && runOf(`${motif.id} ${more.merge_key}`);
      change.mutate({ edit, label: more.label, merge_key }, { onSuccess: then, onError: drop });
    },
    busy: change.isPending,
    isKeeping,
  };
}

export type MotifEdit = ReturnType<typeof useMotifEdit>;
