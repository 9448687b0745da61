import { useMemo } from "react";
import type { Line } from "../../shared/api/client";
import { useSceneMotifs } from "../../shared/api/motifs";
import type { Scene } from "../../shared/api/scenes";
import { useLay } from "../../shared/api/useLay";
import { useDesk } from "./desk";
import { useLaidPage } from "./laidPage";

const NONE: Scene[] = [];

/** What a line has of its own beside its brush. */
const ownOf = (line: Line | undefined) => ({
  size_pct: line?.size_pct ?? 100,
  ink: line?.ink ?? null,
  second_ink: line?.second_ink ?? null,
  arrangement: line?.arrangement ?? null,
});

/** The page's scenes with the line that is drawn or reshaped as it is now. */
export function useDrafted() {
  const { lines, together, brushId, path, scenes: laid } = useLaidPage();
  const draft = useDesk((desk) => desk.draft);
  const moving = useDesk((desk) => desk.moving);
  const body = useMemo(() => {
    const ids = together.map(({ id }) => id);
    if (moving && ids.length) return { only: ids, draft_moving: { lines: ids, moving } };
    if (!draft) return null;
    const of = lines.find((line) => line.id === draft.line_id);
    const brush_id = of?.brush_id ?? brushId;
    if (!brush_id) return null;
    return {
      only: draft.line_id ? [draft.line_id] : [],
      draft: { ...draft, brush_id, ...ownOf(of) },
    };
  }, [draft, moving, together, lines, brushId]);
  const over = useLay(body ? path : null, body, { cures: false });
  const trying = ((draft || moving) && over.laid?.scenes) || NONE;
  const scenes = useMemo(
    () => [...laid.map((s) => trying.find((t) => t.key === s.key) ?? s), ...trying.filter((t) => t.key === "draft")],
    [laid, trying],
  );
  return { scenes, motifOf: useSceneMotifs(scenes) };
}
