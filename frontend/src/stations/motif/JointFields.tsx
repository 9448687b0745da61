import { NumberField } from "../../shared/ui/NumberField";
import { useOpenMotif } from "./openMotif";
import { jointsOf } from "./tools/cut";

/** The joints and the frame's height, in figures. */
export function JointFields() {
  const { bench, edit } = useOpenMotif();
  const { motif } = bench;
  const joints = jointsOf(motif);
  const moved = (which: number, axis: number, mm: number): number[][] =>
    joints.map((joint, i) => (i === which ? joint.map((v, k) => (k === axis ? mm : v)) : joint));
  return (
    <>
      {joints.map((joint, i) => (
        <span key={i} className="col-span-2 flex justify-between">
          <NumberField
            compact
            label={i ? "Right joint" : "Left joint"}
            unit="mm"
            step={0.1}
            value={joint[0]}
            onSet={(v) => edit.keep({ op: "joints", joints_mm: moved(i, 0, v) }, { merge_key: "joint" })}
          />
          <NumberField
            compact
            label="down"
            unit="mm"
            step={0.1}
            value={joint[1]}
            onSet={(v) => edit.keep({ op: "joints", joints_mm: moved(i, 1, v) }, { merge_key: "joint" })}
          />
        </span>
      ))}
      <NumberField
        compact
        label="High"
        unit="mm"
        step={0.1}
        value={motif.height_mm}
        onSet={(v) =>
          edit.keep(
            { op: "frame", left_mm: 0, top_mm: 0, right_mm: motif.width_mm, bottom_mm: v },
            { label: `frame ${v} mm high`, merge_key: "height" },
          )
        }
      />
      <button
        className="plain-button px-1.5 py-0"
        disabled={!motif.joints_mm}
        onClick={() => edit.keep({ op: "joints", joints_mm: null }, { label: "joints to the ends" })}
      >
        Joints to the ends
      </button>
      <button className="plain-button col-start-2 px-1.5 py-0" onClick={() => edit.keep({ op: "trim" })}>
        Trim the margin
      </button>
    </>
  );
}
