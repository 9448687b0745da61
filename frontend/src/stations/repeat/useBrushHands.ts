import { useMemo } from "react";
import { api, kept, type Brush, type Refusal, type Settings, type Workshop } from "../../shared/api/client";
import { queryClient, useChange, useTrouble, withVersion } from "../../shared/api/queries";
import type { SettingsChange } from "../../shared/ui/settings";
import { runOf } from "../../shared/api/runs";
import { useBench } from "./bench";

/** Hands that change a brush: what they drag is a draft, what they set is kept as one step. The same while the brush is. */
export function useBrushHands(brush: Brush) {
  const path = { path: { id: brush.id } };
  const { mutateAsync: keep } = useChange((input: { change: SettingsChange; label: string; merge_key: string }) =>
    withVersion("brush", asFetched(brush), (version, { settings }) =>
      kept(
        api.PATCH("/api/brushes/{id}", {
          params: path,
          body: {
            version,
            change: input.change as Record<string, never>,
            was: partOf(settings, input.change) as Record<string, never>,
            label: input.label,
            merge_key: input.merge_key,
          },
        }),
      ),
    ),
  );
  const { mutateAsync: keepPitch } = useChange((body: { pitch_mm: number; merge_key: string }) =>
    kept(api.POST("/api/brushes/{id}/pitch", { params: path, body })),
  );
  const drag = useBench((bench) => bench.drag);
  const show = useBench((bench) => bench.show);
  const hang = useBench((bench) => bench.hang);
  const release = useBench((bench) => bench.release);
  const send = useBench((bench) => bench.send);
  const sendPitch = useBench((bench) => bench.sendPitch);
  const arrive = useBench((bench) => bench.arrive);
  const ask = useTrouble((trouble) => trouble.ask);
  return useMemo(() => {
    const set = (change: SettingsChange, label: string): void => {
      send(brush.settings, change);
      void keep({ change, label, merge_key: runOf(`${brush.id} ${label.replace(/[-\d., ]+/g, " ")}`) })
        .catch((refusal: Refusal) => refusal.clash && ask({ ...refusal.clash, take: () => set(change, label) }))
        .finally(arrive);
    };
    return {
      drag: (change: SettingsChange) => drag(brush.settings, change),
      show,
      release,
      /** Hold the tape of a jointed brush: its joints move. */
      dragPitch: hang,
      setPitch: (mm: number) => {
        sendPitch(mm);
        void keepPitch({ pitch_mm: mm, merge_key: runOf(`${brush.id} pitch`) })
          .catch(told)
          .finally(arrive);
      },
      set,
    };
  }, [brush, drag, show, hang, release, send, sendPitch, arrive, keep, keepPitch, ask]);
}

/** The brush as this window knows it now, which may have been fetched since a hand took hold of it. */
const asFetched = (brush: Brush): Brush =>
  queryClient.getQueryData<Workshop>(["workshop"])?.brushes.find(({ id }) => id === brush.id) ?? brush;

/** What settings say where a change does. */
function partOf(settings: Settings, change: SettingsChange): SettingsChange {
  const own = settings as unknown as Record<string, Record<string, unknown>>;
  const parts = Object.entries(change).map(([section, values]) => {
    if (Array.isArray(values) || !values) return [section, own[section]];
    return [section, Object.fromEntries(Object.keys(values).map((key) => [key, own[section]?.[key]]))];
  });
  return Object.fromEntries(parts) as SettingsChange;
}

/** A refusal is told by the change itself. */
const told = (): void => undefined;

export type BrushHands = ReturnType<typeof useBrushHands>;
