import { useRef } from "react";
import { useTrouble } from "../../shared/api/queries";
import { Picker } from "../../shared/ui/Picker";
import type { Mode, SideProps } from "./types";
import type { LineChanges } from "./usePage";

export function DrawWith({ workshop, brushId, mode, onMode, onBrush, changes }: SideProps) {
  const file = useRef<HTMLInputElement>(null);
  const say = useTrouble((s) => s.say);
  const bringIn = async (chosenFile: File | undefined): Promise<void> => {
    if (!chosenFile || !brushId) return;
    if (chosenFile.size > 10 * 1024 * 1024)
      say(`${chosenFile.name} is more than the 10 MB a drawing may have; nothing was brought in`);
    else changes.bringIn.mutate({ brush_id: brushId, svg: await chosenFile.text() });
  };
  const ways: [Exclude<Mode, null>, string][] = [
    ["hand", "By hand"],
    ["points", "By points"],
  ];
  return (
    <div>
      <div role="group" aria-label="Draw a line" className="flex items-baseline gap-4">
        <span className="text-moss">Draw</span>
        {ways.map(([way, words]) => (
          <button
            key={way}
            aria-pressed={mode === way}
            disabled={!brushId}
            className="border-b-2 border-loden pb-px font-semibold aria-pressed:border-madder disabled:text-moss"
            onClick={() => onMode(mode === way ? null : way)}
          >
            {words}
          </button>
        ))}
        <button
          className="border-b-2 border-loden pb-px font-semibold disabled:text-moss"
          disabled={!brushId}
          onClick={() => file.current?.click()}
        >
          Bring in SVG
        </button>
        <input
          ref={file}
          type="file"
          accept=".svg,image/svg+xml"
          className="hidden"
          data-testid="lines-file"
          onChange={(event) => {
            void bringIn(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </div>
      {brushId && (
        <div className="mt-1.5 flex items-center gap-2">
          <span className="text-moss">with</span>
          <Picker label="Brush for the next line" options={workshop.brushes} value={brushId} onSet={onBrush} />
        </div>
      )}
      {mode === "points" && <TypedPoints brushId={brushId} changes={changes} />}
    </div>
  );
}

/** Points given in figures, for exact work and for drawing without a pointer. */
function TypedPoints({ brushId, changes }: { brushId: number | null; changes: LineChanges }) {
  const say = useTrouble((s) => s.say);
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
        if (brushId)
          changes.draw.mutate({
            brush_id: brushId,
            source: { kind: "points", points, flowing: points.map(() => false), closed: false },
          });
      }}
    >
      <input
        name="points"
        aria-label="Points in mm"
        placeholder="or type: 40,60 120,60"
        className="min-w-0 flex-1 border-b border-loden bg-transparent px-0.5"
      />
      <button className="plain-button">Draw</button>
    </form>
  );
}

export function FirstLine({ workshop, brushId, changes, page }: SideProps) {
  if (!brushId) return <p className="mb-2 text-moss">There is no brush to draw with yet. Make one at the Motif station.</p>;
  const [w, h] = [page.width_mm, page.height_mm];
  const wave = {
    kind: "path" as const,
    d: `M${0.1 * w} ${h / 2}C${0.3 * w} ${0.2 * h} ${0.45 * w} ${0.2 * h} ${0.5 * w} ${h / 2}S${0.7 * w} ${0.8 * h} ${0.9 * w} ${h / 2}`,
  };
  return (
    <div className="mb-2">
      <p className="mb-2">
        Press <b>By hand</b> and pull across the sheet, or begin with a sample.
      </p>
      <button
        className="firm-button"
        onClick={() => changes.draw.mutate({ brush_id: brushId, source: wave, name: "Sample wave" })}
      >
        Lay {workshop.brushes.find((b) => b.id === brushId)?.name} on a wave
      </button>
    </div>
  );
}
