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
        <NumberField
          label="Tolerance"
          unit=""
          step={1}
          decimals={0}
          value={how.tolerance ?? 12}
          standard={12}
          onDrag={(tolerance) => set({ tolerance: Math.max(0, Math.min(150, tolerance)) })}
          onSet={(tolerance) => set({ tolerance: Math.max(0, Math.min(150, tolerance)) })}
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
        <NumberField
          label="Fade the rim"
          unit="%"
          step={2}
          decimals={0}
          value={how.fade_rim_pct ?? 0}
          standard={0}
          onDrag={(v) => set({ fade_rim_pct: clampPct(v, 100) })}
          onSet={(v) => set({ fade_rim_pct: clampPct(v, 100) })}
        />
        <NumberField
          label="Round the corners"
          unit="%"
          step={2}
          decimals={0}
          value={how.fade_corner_pct ?? 0}
          standard={0}
          onDrag={(v) => set({ fade_corner_pct: clampPct(v, 50) })}
          onSet={(v) => set({ fade_corner_pct: clampPct(v, 50) })}
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

const clampPct = (v: number, most: number): number => Math.max(0, Math.min(most, v));

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
            <NumberField
              label="Ink is darker than"
              unit="%"
              step={2}
              decimals={0}
              value={(how.threshold ?? 0.5) * 100}
              onDrag={(v) => set({ threshold: clampPct(v, 100) / 100 })}
              onSet={(v) => set({ threshold: clampPct(v, 100) / 100 })}
            />
          ) : (
            <NumberField
              label="Colours"
              unit=""
              step={1}
              decimals={0}
              value={how.colours ?? 4}
              standard={4}
              onDrag={(v) => set({ colours: Math.max(2, Math.min(16, Math.round(v))) })}
              onSet={(v) => set({ colours: Math.max(2, Math.min(16, Math.round(v))) })}
            />
          )}
          <NumberField
            label="Least speck"
            unit="px²"
            step={4}
            decimals={0}
            value={how.least_speck_px ?? 24}
            standard={24}
            onDrag={(v) => set({ least_speck_px: Math.max(0, v) })}
            onSet={(v) => set({ least_speck_px: Math.max(0, v) })}
          />
          <NumberField
            label="Corners kept"
            unit="%"
            step={5}
            decimals={0}
            value={(how.sharpness ?? 0.5) * 100}
            standard={50}
            onDrag={(v) => set({ sharpness: clampPct(v, 100) / 100 })}
            onSet={(v) => set({ sharpness: clampPct(v, 100) / 100 })}
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
