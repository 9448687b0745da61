import { memo } from "react";
import { useBench } from "./bench";
import { useLaidBench } from "./openBench";
import { TrialLarge } from "./TrialLarge";
import { TrialSheet } from "./TrialSheet";

/** The trial lines side by side, or one of them large. */
export const Trials = memo(function Trials() {
  const { trials, header } = useLaidBench();
  const large = useBench((bench) => bench.large);
  const opened = trials.find((trial) => trial.key === large);
  return opened && header ? <TrialLarge scene={opened} box={opened.box ?? header.trial_box} /> : <TrialSheet />;
});
