import { useState } from "react";
import { NumberField } from "../../shared/ui/NumberField";
import { useLaidBench, useSaid } from "./openBench";
import { gapAtPitch, mmOfOnePercent } from "./pitch";
import type { BenchHeader } from "./types";
import { usePitch } from "./usePitch";

type Unit = "mm" | "%";
const other = (unit: Unit): Unit => (unit === "mm" ? "%" : "mm");

/** How far apart pieces are: their gap and their pitch, each in per cent of a piece or in mm; one changes the other. */
export function PitchFields() {
  const { settings } = useSaid();
  const { header } = useLaidBench();
  const jointed = settings.travel.round_bends === "jointed" && settings.travel.kind === "repeated";
  if (!header) return <span className="col-span-2 text-moss">…</span>;
  return (
    <>
      {jointed ? (
        <p className="text-[12.5px] leading-snug text-moss">Links hang in one another: their joints say the pitch.</p>
      ) : (
        <Gap one={mmOfOnePercent(header)} />
      )}
      <Pitch header={header} jointed={jointed} />
    </>
  );
}

/** The gap after a piece; ``one`` is what a per cent of it comes to, mm. */
function Gap({ one }: { one: number }) {
  const { bound } = useSaid();
  const [unit, setUnit] = useState<Unit>("%");
  const { value, limitsOf, onDrag, onSet, onLeave } = bound("spacing", "gap_pct", "gap", "%");
  const shown = unit === "%" ? 1 : one;
  const asked = (next: number): number => Number((next / shown).toFixed(3));
  return (
    <NumberField
      label="Gap"
      standard={0}
      unit={unit}
      step={unit === "%" ? 1 : 0.1}
      value={value * shown}
      mmOfOne={one}
      limitsOf={unit === "%" ? limitsOf : undefined}
      onUnit={() => setUnit(other(unit))}
      onDrag={(next) => onDrag(asked(next))}
      onSet={(next) => onSet(asked(next))}
      onLeave={onLeave}
    />
  );
}

/** From the middle of a piece to the middle of the next: it sets the gap, and moves the joints of links. */
function Pitch({ header, jointed }: { header: BenchHeader; jointed: boolean }) {
  const { edit } = useSaid();
  const [unit, setUnit] = useState<Unit>("mm");
  const standing = usePitch(header, jointed);
  const one = mmOfOnePercent(header);
  const shown = unit === "mm" ? 1 : one;
  const least = 0.01 * header.piece_mm;
  const set = (mm: number): void => {
    const gap_pct = gapAtPitch(header, mm);
    edit.set({ spacing: { gap_pct } }, `gap to ${gap_pct} %`);
  };
  const held = (mm: number): number => Math.max(least, mm);
  return (
    <div>
      <NumberField
        label="Pitch"
        unit={unit}
        step={unit === "%" ? 1 : 0.1}
        value={standing / shown}
        mmOfOne={one}
        onUnit={() => setUnit(other(unit))}
        onDrag={(next) =>
          jointed ? edit.dragPitch(held(next * shown)) : edit.drag({ spacing: { gap_pct: gapAtPitch(header, next * shown) } })
        }
        onSet={(next) => (jointed ? edit.setPitch(held(next * shown)) : set(next * shown))}
        onLeave={edit.release}
      />
      <span className="block text-[11.5px] text-moss">{(25.4 / standing).toFixed(2)} to the inch</span>
    </div>
  );
}
