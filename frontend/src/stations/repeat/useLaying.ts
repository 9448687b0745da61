import { useEffect, useMemo, useState } from "react";
import type { Schemas, Workshop } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { useLay } from "../../shared/api/useLay";
import { useBench } from "./bench";
import { FLAT, widest } from "./flatSizes";
import { draftOf, type LaidBench, type OpenBench } from "./openBench";

const ASIDE = "aside ";

/** Keep the open brush laid on its flat run and trial lines. */
export function useLaying({ brush, motifs }: OpenBench, size: LaidBench["size"], history: Workshop["history"]): LaidBench {
  const [motif] = motifs;
  const bench = useBench((bench) => bench);
  const { draft, preview, before, pitch, shaped, pinned, large, aside, step, comparing, inHand, stand } = bench;
  const settings = (comparing && before) || preview || draft || brush.settings;
  const still = !draft && pitch === null && settings === brush.settings;

  const [held, setHeld] = useState<{ scale: number; trial: number | null }>({ scale: 0, trial: null });
  const guess = ((motif.piece ?? motif).width_mm * (brush.settings.spacing.size_pct ?? 100)) / 100;
  const scale = held.scale || FLAT.width(size.width) / (5.4 * guess);
  const flat_mm = Number((FLAT.width(size.width) / scale).toFixed(3));
  const trial_mm = still ? null : held.trial;
  const body = useMemo(
    () => ({
      ...draftOf(brush),
      settings,
      pitch_mm: pitch,
      shaped,
      pinned,
      large,
      aside,
      flat_mm,
      trial_mm,
      trial_step: step,
    }),
    [brush, settings, pitch, shaped, pinned, large, aside, flat_mm, trial_mm, step],
  );
  const steps = pinned.length ? [history.undo_id, history.redo_id] : []; // pinned lines may have changed with any step
  const versions = [...motifs.map(({ version }) => version), ...steps].join("."); // asked anew for others
  const path = `/api/bench/lay#${versions}`;
  const { laid, behind, refusal, cured } = useLay<typeof body, Schemas["BenchHeader"]>(path, size.width ? body : null);

  const hung = !inHand && (!still || behind) ? bench.hung : null;
  const stands = bench.hung !== null && still && !behind;
  useEffect(() => {
    if (stands) stand();
  }, [stands, stand]);

  const header = laid?.header;
  const furthest = Math.max(0, ...(settings.rows?.beside_mm ?? []).map(Math.abs));
  const fitting =
    header && FLAT.scale(size, header.pitch_mm, header.height_mm * widest(settings.hand), header.spread_mm, 2 * furthest);
  // the scales stand still while something is dragged and settle when it is let go
  if (still && header && fitting && (Math.abs(fitting - held.scale) > 1e-6 || header.trial_mm !== held.trial)) {
    setHeld({ scale: fitting, trial: header.trial_mm });
  }

  const { flat, trials, beside } = useMemo(() => parted(laid?.scenes ?? []), [laid]);
  const present = usePresent(
    pinned,
    laid?.of.pinned ?? [],
    trials.flatMap((trial) => trial.pinned ?? []),
  );
  // what is in the hand shows together with its picture, so a drag paints one frame a step; words set by
  // key or typing do not wait, for keys step on from what they say
  const shown = laid?.of.settings ?? settings;
  const said = inHand ? shown : settings;
  return useMemo(
    () => ({ header, flat, trials, beside, cured, refusal, hung, shown, said, scale, size, present }),
    [header, flat, trials, beside, cured, refusal, hung, shown, said, scale, size, present],
  );
}

/** The flat run, the trial lines, and what is kept aside on the same lines, by their keys. */
function parted(scenes: Scene[]): Pick<LaidBench, "flat" | "trials" | "beside"> {
  const aside = scenes.filter((scene) => scene.key.startsWith(ASIDE));
  return {
    flat: scenes.find((scene) => scene.key === "flat"),
    trials: scenes.filter((scene) => scene.key !== "flat" && !aside.includes(scene)),
    beside: new Map(aside.map((scene) => [scene.key.slice(ASIDE.length), scene])),
  };
}

/** The pinned lines but those that were asked for and did not come, for they are deleted; undone, they are there again. */
function usePresent(pinned: number[], asked: number[], come: number[]): number[] {
  const gone = asked.filter((line) => !come.includes(line)).join(" ");
  return useMemo(() => pinned.filter((line) => !gone.split(" ").includes(String(line))), [pinned, gone]);
}
