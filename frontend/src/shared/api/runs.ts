/** The longest rest between two steps of one run, in ms: chosen. */
const REST = 3000;
const HANDS = ["keydown", "pointerdown", "pointerup", "wheel", "click", "input"] as const;

interface Run {
  of: string;
  name: string;
  /** When its last step was made, or was on the screen if that is known by now. */
  at: number;
}

let lastHand = 0;
let run: Run | null = null;

for (const kind of HANDS) {
  addEventListener(kind, (event) => (lastHand = event.timeStamp), { capture: true, passive: true });
}

/**
 * The name of the run of quick steps that a step of this kind, which a hand makes now, belongs to; undo takes a run back at once.
 *
 * Time is the hand's: neither a slow answer nor a screen that stood still is a rest.
 */
export function runOf(kind: string): string {
  const made = performance.now();
  if (run?.of !== kind || lastHand - run.at > REST) {
    run = { of: kind, name: `${Date.now().toString(36)} ${kind}`.slice(0, 120), at: made };
  }
  const own = run;
  own.at = made;
  requestAnimationFrame(() => (own.at = performance.now()));
  return own.name;
}
