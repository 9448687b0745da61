import { runOf } from "../../shared/api/runs";
import { NumberField } from "../../shared/ui/NumberField";
import { Picker } from "../../shared/ui/Picker";
import { BrushPicture } from "./BrushPicture";
import { useLaidPage } from "./laidPage";
import { useLineHands } from "./useLineHands";

/** What can be said of several lines at once. */
export function LinesTogether() {
  const { workshop, together, changes } = useLaidPage();
  const { removeAll } = useLineHands();
  const [first] = together;
  const same = <T,>(of: (line: typeof first) => T): T | null =>
    together.every((line) => of(line) === of(first)) ? of(first) : null;
  const size = same((line) => line.size_pct);
  const brush = same((line) => line.brush_id);
  const words = `${together.length} lines`;
  const change = (patch: Parameters<typeof changes.together.mutate>[0]): void => changes.together.mutate(patch);
  return (
    <section aria-label="Chosen lines" className="mt-2 border-l-[3px] border-indigo bg-work px-3 py-2">
      <div className="flex items-baseline gap-2">
        <h3 className="min-w-0 flex-1 text-[15px]">{words} chosen</h3>
        <button className="text-[12.5px] text-madder underline decoration-dotted" onClick={() => removeAll(together)}>
          Delete them
        </button>
      </div>
      <div className="mt-1.5 grid grid-cols-[1fr_100px] gap-3">
        <div className="min-w-0">
          <span className="mb-1 block text-[12.5px] text-moss">Brush of all{brush === null && ", unlike now"}</span>
          <Picker
            label="Brush of all"
            options={workshop.brushes}
            value={brush ?? first.brush_id}
            onSet={(brush_id) => change({ lines: together, brush_id, label: `brush of ${words}` })}
            picture={(id) => <BrushPicture brushId={id} />}
          />
        </div>
        <NumberField
          label={size === null ? "Size, unlike now" : "Size"}
          unit="%"
          value={size ?? first.size_pct}
          step={5}
          standard={100}
          limitsOf="spacing.size_pct"
          onSet={(size_pct) =>
            change({
              lines: together,
              size_pct,
              label: `size of ${words} to ${size_pct} %`,
              merge_key: runOf(`size ${together.map(({ id }) => id).join()}`),
            })
          }
        />
      </div>
      <p className="mt-1.5 text-[12.5px] text-moss">
        Drag them together; a corner of their frame scales them, the ring above turns them (with Shift by 15°). Arrows move them
        by 1 mm. Shift and a press add a line or let it go.
      </p>
    </section>
  );
}
