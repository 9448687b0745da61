import { useRef, useState } from "react";
import { api, kept, type Brush, type Settings } from "../../shared/api/client";
import { useChange, withVersion } from "../../shared/api/queries";
import { withChange, type SettingsChange } from "../../shared/ui/settings";

/** A brush's settings as kept, as being dragged, and as they were before the last change. One brush a mount. */
export function useBrushEdit(brush: Brush) {
  const [draft, setDraft] = useState<Settings | null>(null);
  const [inHand, setInHand] = useState(false); // the draft comes from a drag that goes on
  const [preview, setPreview] = useState<Settings | null>(null);
  const [before, setBefore] = useState<Settings | null>(null);
  const [pitch, setPitch] = useState<number | null>(null); // of a jointed brush, while its tape is held
  const waiting = useRef(0); // changes on their way to the server
  const keep = useChange((input: { change: SettingsChange; label: string; merge_key: string }) =>
    withVersion("brush", brush, (version) =>
      kept(
        api.PATCH("/api/brushes/{id}", {
          params: { path: { id: brush.id } },
          body: { version, change: input.change as Record<string, never>, label: input.label, merge_key: input.merge_key },
        }),
      ),
    ),
  );

  const keepPitch = useChange((pitch_mm: number) =>
    kept(api.POST("/api/brushes/{id}/pitch", { params: { path: { id: brush.id } }, body: { pitch_mm } })),
  );

  return {
    brush,
    pitch,
    settings: preview ?? draft ?? brush.settings,
    kept: brush.settings,
    before,
    dragging: draft !== null || pitch !== null,
    inHand,
    drag: (change: SettingsChange) => {
      setInHand(true);
      setDraft((now) => withChange(waiting.current ? (now ?? brush.settings) : brush.settings, change));
    },
    show: (settings: Settings | null) => setPreview(settings),
    release: () => {
      setInHand(false);
      setDraft(null);
      setPitch(null);
    },
    /** Hold the tape of a jointed brush: its joints move. */
    dragPitch: (mm: number) => {
      setInHand(true);
      setPitch(mm);
    },
    setPitch: (mm: number) => {
      setInHand(false);
      setPitch(mm);
      void keepPitch
        .mutateAsync(mm)
        .catch(() => undefined) // the refusal is told by the change itself
        .finally(() => setPitch(null));
    },
    set: (change: SettingsChange, label: string) => {
      setBefore(brush.settings);
      setPreview(null);
      setInHand(false);
      setDraft((now) => withChange(waiting.current ? (now ?? brush.settings) : brush.settings, change));
      waiting.current += 1;
      void keep
        .mutateAsync({ change, label, merge_key: `${brush.id} ${label.replace(/[-\d., ]+/g, " ")}` })
        .catch(() => undefined) // the refusal is told by the change itself
        .finally(() => {
          waiting.current -= 1;
          if (!waiting.current) setDraft(null);
        });
    },
  };
}

export type BrushEdit = ReturnType<typeof useBrushEdit>;
