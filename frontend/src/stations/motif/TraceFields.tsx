import { Choice } from "../../shared/ui/Choice";
import { Figure } from "./Figure";
import { useOpenPicture } from "./openPicture";

/** How a picture is traced to outlines. */
export function TraceFields() {
  const { how, set } = useOpenPicture();
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
