import { useSaid } from "./openBench";
import { WidthPlot } from "./WidthPlot";
import { THICK_AND_THIN, withOneMore, type Width } from "./widthPlot";

/** The width along the line as points to be dragged; the line's start is at the left. */
export function WidthProfile() {
  const { edit, settings } = useSaid();
  const points = settings.hand?.width_along ?? [];
  const keep = (width_along: Width[], words: string): void => edit.set({ hand: { width_along } }, words);
  return (
    <div>
      <div className="flex items-baseline gap-3 text-[12.5px] text-moss">
        Width along the line
        {points.length ? (
          <>
            <button
              className="plain-button px-1.5 py-0"
              disabled={points.length >= 12}
              onClick={() => keep(withOneMore(points), "a point of the width")}
            >
              one more point
            </button>
            <button className="plain-button px-1.5 py-0" onClick={() => keep([], "one width all along")}>
              one width all along
            </button>
          </>
        ) : (
          <button className="plain-button px-1.5 py-0" onClick={() => keep(THICK_AND_THIN, "thick and thin")}>
            Thick and thin
          </button>
        )}
      </div>
      {points.length > 0 && <WidthPlot points={points} keep={keep} />}
    </div>
  );
}
