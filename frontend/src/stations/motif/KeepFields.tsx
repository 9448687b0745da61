import { Choice } from "../../shared/ui/Choice";
import { Figure } from "./Figure";
import { useOpenPicture } from "./openPicture";

/** What of a picture is kept. */
export function KeepFields() {
  const { how, set } = useOpenPicture();
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
      <Check label="Trim the empty margin" className="mt-1" of="trim" />
      <Check label="Back it with white" of="back_white" />
    </div>
  );
}

function Check({ label, of, className = "" }: { label: string; of: "trim" | "back_white"; className?: string }) {
  const { how, set } = useOpenPicture();
  return (
    <label className={`flex min-h-[26px] items-center gap-1.5 ${className}`}>
      <input type="checkbox" className="h-[18px] w-[18px]" checked={how[of]} onChange={(e) => set({ [of]: e.target.checked })} />{" "}
      {label}
    </label>
  );
}
