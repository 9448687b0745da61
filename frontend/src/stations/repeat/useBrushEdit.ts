import { useState } from "react";
import { api, kept, type Brush, type Settings } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import { withChange, type SettingsChange } from "../../shared/ui/settings";

/** A brush's settings as kept, as being dragged, and as they were before the last change. One brush a mount. */
export function useBrushEdit(brush: Brush) {
  const [draft, setDraft] = useState<Settings | null>(null);
  const [preview, setPreview] = useState<Settings | null>(null);
  const [before, setBefore] = useState<Settings | null>(null);
  const keep = useChange((input: { change: SettingsChange; label: string; merge_key: string }) =>
    kept(
      api.PATCH("/api/brushes/{id}", {
        params: { path: { id: brush.id } },
        body: { version: brush.version, change: input.change as Record<string, never>, label: input.label, merge_key: input.merge_key },
      }),
    ),
  );

  return {
    settings: preview ?? draft ?? brush.settings,
    kept: brush.settings,
    before,
    dragging: draft !== null,
    drag: (change: SettingsChange) => setDraft(withChange(brush.settings, change)),
    show: (settings: Settings | null) => setPreview(settings),
    release: () => setDraft(null),
    set: (change: SettingsChange, label: string) => {
      setBefore(brush.settings);
      setPreview(null);
      setDraft(withChange(brush.settings, change));
      keep.mutate({ change, label, merge_key: `${brush.id} ${label.replace(/[-\d., ]+/g, " ")}` }, { onSettled: () => setDraft(null) });
    },
  };
}

export type BrushEdit = ReturnType<typeof useBrushEdit>;
