import type { Line, Source } from "../../shared/api/client";
import { useDesk, type Moving } from "./desk";
import { runOf } from "../../shared/api/runs";
import { useLaidPage } from "./laidPage";
import { figuresOf } from "./moved";
import type { Place } from "./tools/held";

/** What hands do to lines on the sheet; a draft stays on show until what it became is kept. */
export function useLineHands() {
  const { brushId, changes } = useLaidPage();
  const draft = useDesk((desk) => desk.setDraft);
  const choose = useDesk((desk) => desk.choose);
  const setMoving = useDesk((desk) => desk.setMoving);
  const gone = { onSettled: () => draft(null) };
  return {
    draft,
    draw: (source: Source, name?: string): void =>
      changes.draw.mutate({ brush_id: brushId!, source, name }, { onSuccess: (line) => choose(line.id), ...gone }),
    /** Quick changes of one ``kind`` are one step. */
    reshape: (line: Line, source: Source, label: string, kind?: string): void => {
      draft({ line_id: line.id, source });
      changes.change.mutate({ line, source: source as never, label, merge_key: kind && runOf(`${kind} ${line.id}`) }, gone);
    },
    move: (line: Line, by: Place): Promise<unknown> =>
      changes.change.mutateAsync({ line, move_by: by, label: `move ${line.name}`, merge_key: runOf(`move ${line.id}`) }),
    remove: (line: Line): void => changes.remove.mutate(line),
    moveAll: (lines: Line[], moving: Moving): void =>
      changes.together.mutate(
        {
          lines,
          moving,
          label: `${lines.length} lines ${figuresOf(moving)}`,
          merge_key: runOf(`move ${lines.map(({ id }) => id).join()}`),
        },
        { onSettled: () => setMoving(null) },
      ),
    removeAll: (lines: Line[]): void => changes.together.mutate({ lines, remove: true }, { onSuccess: () => choose(null) }),
  };
}
