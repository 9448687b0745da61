import { useState } from "react";
import type { Finding } from "../../shared/api/scenes";
import { useSize, WorkCanvas } from "../../shared/view/WorkCanvas";
import { ClosingMark } from "./ClosingMark";
import { useDesk } from "./desk";
import { BegunPoints, DrawingNote } from "./DrawingNotes";
import { GroupFrame } from "./GroupFrame";
import { Handles } from "./Handles";
import { useLaidPage } from "./laidPage";
import { PulledBox } from "./PulledBox";
import { sheetPoint } from "./sheetView";
import type { Place } from "./tools/held";
import { useByPoints } from "./useByPoints";
import { useDrafted } from "./useDrafted";
import { useLineHands } from "./useLineHands";
import { useSheetHands } from "./useSheetHands";
import { useSheetKeys } from "./useSheetKeys";
import { useSheetPaint, type Shift } from "./useSheetPaint";
import { useSheetView } from "./useSheetView";
import { ViewButtons } from "./ViewButtons";

const NO_RINGS: Finding[] = [];

/** The sheet with its lines: choosing, moving and drawing happen on it. */
export function Sheet() {
  const { page, lines, chosen, together, findings } = useLaidPage();
  const drafted = useDrafted();
  const mode = useDesk((desk) => desk.mode);
  const spot = useDesk((desk) => desk.spot);
  const clear = useDesk((desk) => desk.draft !== null || desk.cure !== null);
  const [box, size] = useSize<HTMLDivElement>();
  const sheetView = useSheetView(box, size, page, spot);
  const { view } = sheetView;
  const [shift, setShift] = useState<Shift | null>(null);
  const [pulled, setPulled] = useState<[Place, Place] | null>(null);
  const { draw, draft } = useLineHands();
  const byPoints = useByPoints(view.scale, draft, draw);
  const painting = useSheetPaint({ ...drafted, page, chosen, together, rings: clear ? NO_RINGS : findings, spot }, view, shift);
  const at = (event: { clientX: number; clientY: number }): Place => sheetPoint(event, box.current!, view);
  const { hands, isHolding, giveUp } = useSheetHands({ ...sheetView, ...drafted, at, byPoints, setShift, setPulled });
  useSheetKeys({ box, byPoints, isHolding, giveUp });
  return (
    <div
      ref={box}
      tabIndex={0}
      aria-label={`Sheet of ${page.name}, ${page.width_mm} by ${page.height_mm} mm`}
      data-testid="sheet"
      data-scale={view.scale}
      data-origin={`${view.x},${view.y}`}
      className={`relative min-h-0 flex-1 touch-none overflow-hidden bg-[#e9eae2] focus:outline-none ${mode ? "cursor-crosshair" : ""}`}
      {...hands}
    >
      <WorkCanvas
        {...painting}
        label={`${page.name} with ${lines.length} lines`}
        testId="sheet-canvas"
        className="absolute inset-0"
      />
      {!mode && chosen?.visible && !shift && !together.length && <Handles line={chosen} view={view} />}
      {!mode && together.length > 0 && <GroupFrame view={view} />}
      {pulled && <PulledBox pulled={pulled} view={view} />}
      {mode === "points" && <BegunPoints begun={byPoints.begun} view={view} />}
      {mode === "hand" && <ClosingMark view={view} />}
      {mode && <DrawingNote byPoints={byPoints} />}
      <ViewButtons onZoom={sheetView.zoom} onWhole={() => sheetView.setView(null)} />
    </div>
  );
}
