import { useMemo } from "react";
import { api, kept, type Brush } from "../../shared/api/client";
import { useChange, withVersion } from "../../shared/api/queries";
import type { SettingsChange } from "../../shared/ui/settings";
import { useBench } from "./bench";

/** Hands that change a brush: what they drag is a draft, what they set is kept as one step. The same while the brush is. */
export function useBrushHands(brush: Brush) {
  const path = { path: { id: brush.id } };
  const { mutateAsync: keep } = useChange((input: { change: SettingsChange; label: string; merge_key: string }) =>
    withVersion("brush", brush, (version) =>
      kept(
        api.PATCH("/api/brushes/{id}", {
          params: path,
          body: { version, change: input.change as Record<string, never>, label: input.label, merge_key: input.merge_key },
        }),
      ),
    ),
  );
  const { mutateAsync: keepPitch } = useChange((pitch_mm: number) =>
    kept(api.POST("/api/brushes/{id}/pitch", { params: path, body: { pitch_mm } })),
  );
  const drag = useBench((bench) => bench.drag);
  const show = useBench((bench) => bench.show);
  const hang = useBench((bench) => bench.hang);
  const release = useBench((bench) => bench.release);
  const send = useBench((bench) => bench.send);
  const arrive = useBench((bench) => bench.arrive);
  return useMemo(
    () => ({
      drag: (change: SettingsChange) => drag(brush.settings, change),
      show,
      release,
      /** Hold the tape of a jointed brush: its joints move. */
      dragPitch: (mm: number) => hang(mm, true),
      setPitch: (mm: number) => {
        hang(mm, false);
        void keepPitch(mm)
          .catch(told)
          .finally(() => hang(null, false));
      },
      set: (change: SettingsChange, label: string) => {
        send(brush.settings, change);
        void keep({ change, label, merge_key: `${brush.id} ${label.replace(/[-\d., ]+/g, " ")}` })
          .catch(told)
          .finally(arrive);
      },
    }),
    [brush, drag, show, hang, release, send, arrive, keep, keepPitch],
  );
}

/** A refusal is told by the change itself. */
const told = (): void => undefined;

export type BrushHands = ReturnType<typeof useBrushHands>;
