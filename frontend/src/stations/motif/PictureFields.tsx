import { type Preparation } from "../../shared/api/client";
import { Choice } from "../../shared/ui/Choice";
import { NumberField } from "../../shared/ui/NumberField";
import { ColourField } from "./PaintPanel";
import type { Hand } from "./PictureSource";

interface FieldsProps {
  how: Preparation;
  set: (more: Partial<Preparation>) => void;
}

export function ClearFields({ how, set, hand, setHand }: FieldsProps & { hand: Hand; setHand: (hand: Hand) => void }) {
  const picked = how.clear?.startsWith("#") ? how.clear : null;
  const tool = (words: string, which: Hand) => (
    <button
      className="plain-button px-2 py-0.5 aria-pressed:border-madder aria-pressed:font-semibold"
      aria-pressed={hand === which}
      onClick={() => setHand(which)}
    >
      {words}
    </button>
  );
  return (
    <div>
      <Choice
        label="What turns clear"
        value={picked ? "colour" : (how.clear ?? "none")}
        options={[
          { value: "none", label: "nothing" },
          { value: "background", label: "the background" },
          { value: "white", label: "white" },
          { value: "colour", label: "a colour" },
        ]}
        onSet={(which) => {
          setHand(which === "colour" ? "colour" : "region");
          set({ clear: which === "none" ? null : which === "colour" ? (picked ?? "#ffffff") : which });
        }}
      />
      <div className="mt-1 flex items-end gap-3">
        <Figure
          label="Tolerance"
          unit=""
          step={1}

          value={how.tolerance ?? 12}
          standard={12}
          most={150}
          give={(tolerance) => set({ tolerance })}
        />
        {picked && <ColourField label="Colour to clear" value={picked} onSet={(clear) => set({ clear })} />}
      </div>
      <span className="mt-1 block text-[12.5px] text-moss">On the picture</span>
      <div className="flex flex-wrap gap-1.5">
        {tool("Region", "region")}
        {tool("Belongs", "belongs")}
        {tool("Does not belong", "belongs_not")}
        <button
          className="plain-button px-2 py-0.5"
          disabled={!how.belongs?.length && !how.belongs_not?.length}
          onClick={() => set({ belongs: [], belongs_not: [] })}
        >
          No marks
        </button>
      </div>
      <p className="mt-1 text-[11.5px] text-moss">Marks lift a thing out of its background: a few on it, a few beside it.</p>
    </div>
  );
}

export function KeepFields({ how, set }: FieldsProps) {
  const way = how.coverage ?? (how.stencil ? "stencil" : "colours");
  return (
    <div>
      <Choice
        label="The picture gives"
        value={way as "colours" | "stencil" | "light" | "dark"}
        options={[
          { value: "colours", label: "its colours" },
          { value: "stencil", label: "a stencil" },
          { value: "dark", label: "dark covers" },
          { value: "light", label: "light covers" },
        ]}
        onSet={(next) => set({ stencil: next === "stencil", coverage: next === "light" || next === "dark" ? next : null })}
      />
      <div className="mt-1 flex gap-4">
        <Figure
          label="Fade the rim"
          unit="%"
          step={2}

          value={how.fade_rim_pct ?? 0}
          standard={0}
          most={100}
          give={(v) => set({ fade_rim_pct: v })}
        />
        <Figure
          label="Round the corners"
          unit="%"
          step={2}

          value={how.fade_corner_pct ?? 0}
          standard={0}
          most={50}
          give={(v) => set({ fade_corner_pct: v })}
        />
      </div>
      <label className="mt-1 flex min-h-[26px] items-center gap-1.5">
        <input
          type="checkbox"
          className="h-[18px] w-[18px]"
          checked={how.trim}
          onChange={(e) => set({ trim: e.target.checked })}
        />{" "}
        Trim the empty margin
      </label>
      <label className="flex min-h-[26px] items-center gap-1.5">
        <input
          type="checkbox"
          className="h-[18px] w-[18px]"
          checked={how.back_white}
          onChange={(e) => set({ back_white: e.target.checked })}
        />{" "}
        Back it with white
      </label>
    </div>
  );
}

export function TraceFields({ how, set }: FieldsProps) {
  return (
    <div>
      <Choice
        label="Trace to outlines"
        value={how.trace ?? "none"}
        options={[
          { value: "none", label: "no, keep the picture" },
          { value: "threshold", label: "ink and ground" },
          { value: "colours", label: "colours" },
        ]}
        onSet={(next) => set({ trace: next === "none" ? null : next })}
      />
      {how.trace && (
        <div className="mt-1 grid grid-cols-2 gap-x-4">
          {how.trace === "threshold" ? (
            <Figure
              label="Ink is darker than"
              unit="%"
              step={2}

              value={(how.threshold ?? 0.5) * 100}
              most={100}
              give={(v) => set({ threshold: v / 100 })}
            />
          ) : (
            <Figure
              label="Colours"
              unit=""
              step={1}

              value={how.colours ?? 4}
              standard={4}
              least={2}
              most={16}
              give={(v) => set({ colours: Math.round(v) })}
            />
          )}
          <Figure
            label="Least speck"
            unit="px²"
            step={4}

            value={how.least_speck_px ?? 24}
            standard={24}
            give={(v) => set({ least_speck_px: v })}
          />
          <Figure
            label="Corners kept"
            unit="%"
            step={5}

            value={(how.sharpness ?? 0.5) * 100}
            standard={50}
            most={100}
            give={(v) => set({ sharpness: v / 100 })}
          />
          {how.trace === "threshold" && how.threshold !== null && (
            <button className="plain-button self-end px-2 py-0.5" onClick={() => set({ threshold: null })}>
              Find the threshold
            </button>
          )}
        </div>
      )}
      {how.trace === "threshold" && how.threshold === null && (
        <p className="text-[11.5px] text-moss">Ink and ground are told apart on their own; drag the figure to set it by hand.</p>
      )}
    </div>
  );
}

interface FigureProps {
  label: string;
  unit: string;
  step: number;
  value: number;
  standard?: number;
  least?: number;
  most?: number;
  give: (value: number) => void;
}

/** A figure shown whole, the same while it is dragged and once it is set, kept within what it may be. */
function Figure({ least = 0, most = Infinity, give, ...field }: FigureProps) {
  const within = (value: number): void => give(Math.max(least, Math.min(most, value)));
  return <NumberField {...field} decimals={0} onDrag={within} onSet={within} />;
}
