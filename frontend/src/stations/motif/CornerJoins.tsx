import { Fragment } from "react";
import type { Schemas } from "../../shared/api/client";

type Join = Schemas["CornerHeader"]["enters"];

/** How a corner's piece meets both runs, in figures. */
export function CornerJoins({ enters, leaves }: { enters: Join; leaves: Join }) {
  const rows: [string, Join][] = [
    ["Where the run enters", enters],
    ["Where it leaves", leaves],
  ];
  return (
    <dl
      aria-label="Joins of the corner"
      className="grid shrink-0 auto-rows-min grid-cols-[auto_auto_auto_auto] gap-x-4 gap-y-1 pt-1 text-[12.5px]"
    >
      {rows.map(([words, join]) => (
        <Fragment key={words}>
          <dt className="text-moss">{words}</dt>
          {join ? (
            <>
              <dd>
                {offWords(join.gap_mm)} <b>{Math.abs(join.gap_mm).toFixed(2)} mm</b>
              </dd>
              <dd>
                step <b>{join.step_mm.toFixed(2)} mm</b>
              </dd>
              <dd>
                kink <b>{join.kink_deg.toFixed(1)}°</b>
              </dd>
            </>
          ) : (
            <dd className="col-span-3 text-moss">nothing meets it</dd>
          )}
        </Fragment>
      ))}
    </dl>
  );
}

/** How far it is from what was wished. */
const offWords = (mm: number): string => (mm > 0.005 ? "open by" : mm < -0.005 ? "closer by" : "off by");
