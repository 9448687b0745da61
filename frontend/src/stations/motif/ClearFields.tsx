import { Choice } from "../../shared/ui/Choice";
import { ColourField } from "./ColourField";
import { Figure } from "./Figure";
import { useOpenPicture } from "./openPicture";
import type { Hand } from "./types";

/** What of a picture turns clear. */
export function ClearFields() {
  const { how, set, hand, setHand } = useOpenPicture();
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
          { value: "background_and_holes", label: "holes too" },
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
