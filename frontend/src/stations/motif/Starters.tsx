import { useQuery } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { api, kept, type Motif, type Starter } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import { go } from "../../shared/ui/place";
import { stampOf, stampShapes } from "../../shared/view/stamp";
import type { Paint } from "../../shared/view/layers";
import { WorkCanvas } from "../../shared/view/WorkCanvas";
import type { MotifEdit } from "./useMotifEdit";
import { unionBox } from "./view";

interface Props {
  motif: Motif | undefined;
  edit: MotifEdit | null;
  onDone: () => void;
}

/** The starters, each drawn repeating; pressed it becomes a new motif, or a part of the open one. */
export function Starters({ motif, edit, onDone }: Props) {
  const { data } = useQuery({ queryKey: ["starters"], queryFn: () => kept(api.GET("/api/starters")) });
  const [onto, setOnto] = useState(false);
  const begin = useChange((starter: string) => kept<Motif>(api.POST("/api/motifs/starter", { body: { starter } })));
  const take = (starter: Starter): void => {
    if (onto && motif && edit) {
      edit.keep(
        { op: "starter", starter: starter.key, figures: {}, x_mm: motif.width_mm / 2, y_mm: motif.height_mm / 2, colour: null },
        { label: `${starter.name.toLowerCase()} laid on` },
      );
      onDone();
    } else begin.mutate(starter.key, { onSuccess: (made) => (go("motif", made.id), onDone()) });
  };
  return (
    <div
      className="absolute inset-x-0 top-0 z-20 border-b border-loden bg-work px-5 pt-3 pb-4 shadow-md"
      role="dialog"
      aria-label="Starters"
    >
      <div className="mb-2 flex items-baseline gap-4">
        <h2 className="text-[15px]">Starters</h2>
        <span className="text-[12.5px] text-moss">
          Each is drawn repeating; its figures stay live until its shape is changed by hand.
        </span>
        {motif && (
          <label className="ml-auto flex items-center gap-1.5 text-[12.5px]">
            <input type="checkbox" checked={onto} onChange={(e) => setOnto(e.target.checked)} /> lay it onto {motif.name}
          </label>
        )}
        <button className={`plain-button ${motif ? "" : "ml-auto"}`} onClick={onDone}>
          Close
        </button>
      </div>
      <ul className="grid grid-cols-6 gap-2">
        {data?.starters.map((starter) => (
          <li key={starter.key}>
            <button
              aria-label={starter.name}
              className="block w-full border border-rule bg-work px-1 pt-1 pb-0.5 hover:border-loden"
              onClick={() => take(starter)}
            >
              <span className="block h-[62px]">
                <Repeating motif={starter.motif} />
              </span>
              {starter.name}
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** A motif three times in a row, as it would repeat. */
export function Repeating({ motif }: { motif: Motif }) {
  const paint = useCallback<Paint>(
    (ctx, size, ratio) => {
      const ink = unionBox([[0, 0, motif.width_mm, motif.height_mm], ...motif.shapes.map((s) => s.box)]);
      const [across, high] = [2 * motif.width_mm + ink[2] - ink[0], ink[3] - ink[1]];
      const scale = Math.min((size.width - 8) / across, (size.height - 6) / high);
      const left = (size.width - across * scale) / 2 - ink[0] * scale;
      const top = (size.height - high * scale) / 2 - ink[1] * scale;
      for (let k = 0; k < 3; k++) {
        const s = scale * ratio;
        ctx.setTransform(
          s,
          0,
          0,
          s,
          (left + (k + 0.5) * motif.width_mm * scale) * ratio,
          (top + motif.base_line_mm * scale) * ratio,
        );
        stampShapes(ctx, stampOf(motif));
      }
    },
    [motif],
  );
  return <WorkCanvas paint={paint} label={`${motif.name}, repeating`} />;
}
