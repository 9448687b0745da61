import { useState } from "react";
import { NumberField } from "../../shared/ui/NumberField";
import { useOpenMotif } from "./openMotif";
import { PartList } from "./PartList";
import { Row } from "./Row";
import { round } from "./view";
import { useWork } from "./work";

/** The points of one part: flowing or pointed, added, removed, squashed, set by figures. */
export function PointsPanel() {
  const { bench, edit, parts } = useOpenMotif();
  const nodes = useWork((work) => work.nodes);
  const contour = useWork((work) => work.contour);
  const onNodes = useWork((work) => work.chooseNodes);
  const own = bench.contours?.[contour];
  const [squash, setSquash] = useState(50);
  const part = parts[0];
  const chosen = own && nodes.every((n) => n < own.at.length) ? nodes : [];
  const at = own && chosen.length === 1 ? own.at[chosen[0]] : null;
  const last = own ? (own.closed ? own.at.length : own.at.length - 1) : 0;
  const button = (words: string, enabled: boolean, act: () => void) => (
    <button className="plain-button px-2 py-0.5" disabled={!enabled || edit.busy} onClick={act}>
      {words}
    </button>
  );
  const on = { part, contour, nodes: chosen };
  return (
    <div className="flex h-full gap-5">
      <PartList />
      <div className="min-w-0 flex-1 overflow-y-auto">
        <p className="mb-2 text-moss">
          {parts.length !== 1
            ? "Press one part to see its points."
            : `${bench.contours?.reduce((n, c) => n + c.at.length, 0) ?? 0} points. Pull a point or a handle; press a side twice to ` +
              "add a point. Round points flow, three-cornered ones are pointed."}
        </p>
        <Row words={chosen.length ? `${chosen.length} chosen` : "None chosen"}>
          {button("Flowing", chosen.length > 0, () =>
            edit.keep({ op: "flow", ...on, flowing: true }, { label: "flowing points" }),
          )}
          {button("Pointed", chosen.length > 0, () =>
            edit.keep({ op: "flow", ...on, flowing: false }, { label: "pointed points" }),
          )}
          {button("Add one after", chosen.length === 1 && chosen[0] < last, () =>
            edit.keep({ op: "add_node", part, contour, side: chosen[0], at: 0.5 }),
          )}
          {button("Remove", chosen.length > 0, () => edit.keep({ op: "remove_nodes", ...on }, { then: () => onNodes([]) }))}
          {button("All of this outline", !!own, () => onNodes(own!.at.map((_, i) => i)))}
        </Row>
        <Row words="Squash">
          <NumberField compact label="to" unit="%" step={10} decimals={0} value={squash} standard={50} onSet={setSquash} />
          {button("across", chosen.length > 1, () => edit.keep({ op: "squash", ...on, along_pct: 100, across_pct: squash }))}
          {button("along", chosen.length > 1, () => edit.keep({ op: "squash", ...on, along_pct: squash, across_pct: 100 }))}
        </Row>
        {at && (
          <Row words="This point lies at">
            <NumberField
              compact
              relative
              label="From the left"
              unit="mm"
              step={0.1}
              decimals={3}
              value={at[0]}
              onSet={(v) => edit.keep({ op: "move_nodes", ...on, dx_mm: round(v - at[0], 4), dy_mm: 0 }, { merge_key: "nodes" })}
            />
            <NumberField
              compact
              relative
              label="From the top"
              unit="mm"
              step={0.1}
              decimals={3}
              value={at[1]}
              onSet={(v) => edit.keep({ op: "move_nodes", ...on, dx_mm: 0, dy_mm: round(v - at[1], 4) }, { merge_key: "nodes" })}
            />
          </Row>
        )}
      </div>
    </div>
  );
}
