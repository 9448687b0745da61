import { useMutation } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { api, kept, type MotifBench, type Schemas } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import { NumberField } from "../../shared/ui/NumberField";
import { go } from "../../shared/ui/place";
import { stampOf, stampShapes } from "../../shared/view/stamp";
import type { Paint } from "../../shared/view/layers";
import { WorkCanvas } from "../../shared/view/WorkCanvas";
import type { MotifEdit } from "./useMotifEdit";
import { round } from "./view";
import { CLOSE, seamMiddle, Profile } from "./SeamProfile";

interface Props {
  bench: MotifBench;
  edit: MotifEdit;
}

/** The seam eight times close, both edges in profile, its figures, and what mends it. */
export function SeamPanel({ bench, edit }: Props) {
  const { motif, seam } = bench;
  const [from, to] = motif.cuts_mm ?? [0, motif.width_mm];
  const [darn, setDarn] = useState(2);
  const seamPaint = useCallback<Paint>(
    (ctx, area, ratio) => {
      const scale = Math.min(CLOSE, (area.height / motif.height_mm) * 2.4);
      const stamp = stampOf(motif);
      const half = (left: boolean): void => {
        ctx.save();
        ctx.beginPath();
        ctx.rect(left ? 0 : area.width / 2, 0, area.width / 2, area.height);
        ctx.clip();
        const s = scale * ratio;
        const at = left ? to : from;
        const middle = seamMiddle(seam, motif.height_mm);
        ctx.setTransform(
          s,
          0,
          0,
          s,
          (area.width / 2 + (motif.width_mm / 2 - at) * scale) * ratio,
          (area.height / 2 + (motif.base_line_mm - middle) * scale) * ratio,
        );
        stampShapes(ctx, stamp);
        ctx.restore();
      };
      half(true);
      half(false);
      ctx.fillStyle = "#20352c";
      ctx.fillRect(area.width / 2 - 0.5, 0, 1, area.height);
    },
    [motif, from, to, seam],
  );
  const find = useMutation({
    mutationFn: () =>
      kept<Schemas["FoundRepeatMessage"]>(api.GET("/api/motifs/{id}/repeat", { params: { path: { id: motif.id } } })),
  });
  const divide = useChange(() =>
    kept<Schemas["BrushMessage"]>(
      api.POST("/api/motifs/{id}/divide", {
        params: { path: { id: motif.id } },
        body: { version: motif.version, name: motif.name },
      }),
    ),
  );
  const picture = motif.shapes.length === 1 && motif.shapes[0].picture !== null;
  const sound = seam.mismatch_mm <= 0.1 && seam.slope_deg <= 15 && seam.delta_e <= 2;
  const joints = motif.joints_mm ?? [
    [from, motif.base_line_mm],
    [to, motif.base_line_mm],
  ];
  const moved = (which: number, axis: number, mm: number): number[][] =>
    joints.map((j, i) => (i === which ? j.map((v, k) => (k === axis ? mm : v)) : j));
  const apart = seam.filled_mm < 0.5 * seam.inside_mm;
  const verdict = apart
    ? "Little reaches the edges: the pieces only touch there."
    : sound
      ? "The edges meet."
      : "The edges do not meet: move a tape, find the best cut, or darn.";
  return (
    <div className="flex h-full gap-6">
      <div className="w-[236px] shrink-0">
        <h3 className="mb-1 text-[14px]">Seam, eight times close</h3>
        <div className="h-[150px] border border-rule">
          <WorkCanvas paint={seamPaint} label="The right edge against the next left edge, magnified" testId="seam" />
        </div>
      </div>
      <Profile seam={seam} height={motif.height_mm} />
      <div className="min-w-0 flex-1 overflow-y-auto">
        <dl className="grid w-max grid-cols-[auto_auto] gap-x-2 leading-snug" data-testid="seam-figures">
          {[
            ["edges differ by", `${seam.mismatch_mm.toFixed(2)} mm`],
            ["angle differs by", `${seam.slope_deg.toFixed(0)}°`],
            ["colour differs by", `ΔE ${seam.delta_e.toFixed(1)}`],
          ].map(([words, value]) => (
            <div key={words} className="contents">
              <dt className="text-moss">{words}</dt>
              <dd className="font-bold tabular-nums">{value}</dd>
            </div>
          ))}
        </dl>
        <p className="mb-1.5 text-[12.5px] text-moss">{verdict}</p>
        <div className="flex flex-wrap items-center gap-1.5">
          <button className="firm-button px-2.5 py-1" disabled={edit.busy} onClick={() => edit.keep({ op: "best_cut" })}>
            Find the best cut
          </button>
          <button className="plain-button px-1.5 py-0" disabled={find.isPending} onClick={() => find.mutate()}>
            {find.isPending ? "Looking…" : "Find the repeat"}
          </button>
          <button
            className="plain-button px-1.5 py-0"
            disabled={edit.busy}
            onClick={() => edit.keep({ op: "darn", width_mm: darn })}
          >
            Darn the seam
          </button>
          {picture && <NumberField compact label="over" unit="mm" step={0.5} value={darn} standard={2} onSet={setDarn} />}
        </div>
        {find.data && (
          <p className="mt-1.5 text-[12.5px]" data-testid="found-repeat">
            It repeats every{" "}
            <button
              className="thread-word"
              onClick={() => edit.keep({ op: "cut_to_length", length_mm: round(find.data.length_mm, 4) })}
            >
              {find.data.length_mm.toFixed(2)} mm
            </button>{" "}
            ({Math.round(find.data.strength * 100)} % alike)
            {find.data.second_mm !== null && (
              <>
                , else every{" "}
                <button
                  className="thread-word"
                  onClick={() => edit.keep({ op: "cut_to_length", length_mm: round(find.data.second_mm!, 4) })}
                >
                  {find.data.second_mm.toFixed(2)} mm
                </button>{" "}
                ({Math.round((find.data.second_strength ?? 0) * 100)} %)
              </>
            )}
            . Press one to cut there.
          </p>
        )}
        {find.error && <p className="mt-2 text-[12.5px] text-madder">{find.error.message}.</p>}
        <div className="mt-1.5 flex flex-wrap items-center gap-1.5">
          <button
            className="plain-button px-1.5 py-0"
            disabled={!motif.cuts_mm}
            onClick={() => divide.mutate(undefined, { onSuccess: (brush) => go("repeat", brush.id) })}
          >
            Cut in three pieces
          </button>
          <button
            className="plain-button px-1.5 py-0"
            disabled={!motif.cuts_mm}
            onClick={() => edit.keep({ op: "keep_between" })}
          >
            Keep only what repeats
          </button>
          <button
            className="plain-button px-1.5 py-0"
            disabled={!motif.cuts_mm}
            onClick={() => edit.keep({ op: "cuts", cuts_mm: null }, { label: "no cuts" })}
          >
            No cuts
          </button>
        </div>
      </div>
      <div className="grid w-[262px] shrink-0 auto-rows-min grid-cols-2 gap-x-3 gap-y-1.5">
        {([0, 1] as const).map((i) => (
          <NumberField
            compact
            key={i}
            label={i ? "Right cut" : "Left cut"}
            unit="mm"
            step={0.1}
            value={i ? to : from}
            onDrag={(v) => edit.show({ op: "cuts", cuts_mm: i ? [from, v] : [v, to] })}
            onSet={(v) => edit.keep({ op: "cuts", cuts_mm: i ? [from, v] : [v, to] })}
            onLeave={edit.drop}
          />
        ))}
        <NumberField
          compact
          label="Base line"
          unit="mm"
          step={0.1}
          value={motif.base_line_mm}
          standard={motif.height_mm / 2}
          onDrag={(v) => edit.show({ op: "base_line", base_line_mm: v })}
          onSet={(v) => edit.keep({ op: "base_line", base_line_mm: v })}
          onLeave={edit.drop}
        />
        <NumberField
          compact
          label="Length"
          unit="mm"
          step={1}
          value={motif.width_mm}
          onSet={(width_mm) => edit.keep({ op: "resize", width_mm }, { label: `length to ${width_mm} mm` })}
        />
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
              { label: `frame ${v} mm high` },
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
      </div>
    </div>
  );
}
