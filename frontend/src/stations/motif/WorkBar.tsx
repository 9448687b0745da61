import { useBeginning } from "./beginning";
import { BeginBar } from "./BeginBar";
import { useOpenMotif } from "./openMotif";
import { useWork } from "./work";

/** Ways to begin another motif, the pen, and the ground that this one is seen on. */
export function WorkBar() {
  const { weight } = useOpenMotif().bench;
  const drawing = useBeginning((now) => now.drawing);
  const draw = useBeginning((now) => now.draw);
  const night = useWork((work) => work.night);
  const turnNight = useWork((work) => work.turnNight);
  return (
    <BeginBar>
      <button
        className="font-semibold hover:text-madder aria-pressed:text-madder"
        aria-pressed={drawing !== null}
        onClick={() => draw(drawing ? null : { width_mm: 0.8, closed: false, fresh: false })}
      >
        Draw
      </button>
      <span className="ml-auto flex items-baseline gap-3 whitespace-nowrap text-moss">
        <span data-testid="weight">
          {weight.points} points, {weight.word}
        </span>
        <button className="plain-button px-2 py-0.5" aria-pressed={night} onClick={turnNight}>
          {night ? "Light ground" : "Dark ground"}
        </button>
      </span>
    </BeginBar>
  );
}
