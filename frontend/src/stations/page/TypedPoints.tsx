import { useTrouble } from "../../shared/api/queries";
import { useDesk } from "./desk";
import { useLaidPage } from "./laidPage";
import { useLineHands } from "./useLineHands";

/** Points given in figures, for exact work and for drawing without a pointer. */
export function TypedPoints() {
  const { brushId } = useLaidPage();
  const { draw } = useLineHands();
  const say = useTrouble((s) => s.say);
  const pointed = useDesk((desk) => desk.pointed);
  return (
    <form
      className="mt-1.5 flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const text = String(new FormData(event.currentTarget).get("points"));
        const numbers = text
          .trim()
          .split(/[\s,;]+/)
          .map(Number);
        if (numbers.length < 4 || numbers.length % 2 || numbers.some((n) => !Number.isFinite(n))) {
          say("points are read as pairs of mm, such as 40,60 120,60 120,140");
          return;
        }
        const points = Array.from({ length: numbers.length / 2 }, (_, i): [number, number] => [
          numbers[2 * i],
          numbers[2 * i + 1],
        ]);
        if (brushId) draw({ kind: "points", points, flowing: points.map(() => !pointed), closed: false });
      }}
    >
      <input
        name="points"
        aria-label="Points in mm"
        placeholder="or type: 40,60 120,60"
        className="min-w-0 flex-1 border-b border-loden bg-transparent px-0.5"
        onKeyDown={(event) => {
          if (event.key !== "Escape") return;
          event.stopPropagation(); // the next one leaves the drawing
          event.currentTarget.blur();
        }}
      />
      <button className="plain-button">Draw</button>
    </form>
  );
}
