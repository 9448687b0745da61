import { useRef } from "react";
import type { Motif } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import type { View } from "../../shared/view/view";
import { useDesk, type Moving } from "./desk";
import { useLaidPage } from "./laidPage";
import { STILL } from "./moved";
import { lineAt, linesWithin } from "./sheetView";
import { byHand } from "./tools/byHand";
import type { Held, Place, Reach } from "./tools/held";
import { moveLine } from "./tools/moveLine";
import { pan } from "./tools/pan";
import { pullBox } from "./tools/pullBox";
import type { ByPoints } from "./useByPoints";
import { useClosing } from "./useClosing";
import { useLineHands } from "./useLineHands";
import type { Shift } from "./useSheetPaint";

interface Sheet {
  view: View;
  setView: (view: View) => void;
  scenes: Scene[];
  motifOf: (scene: Scene) => Motif[];
  at: (event: { clientX: number; clientY: number }) => Place;
  byPoints: ByPoints;
  setShift: (shift: Shift | null) => void;
  setPulled: (box: [Place, Place] | null) => void;
}

/** What the pointer does on the sheet: a press takes hold of a tool, or sets a point. */
export function useSheetHands({ view, setView, scenes, motifOf, at, byPoints, setShift, setPulled }: Sheet) {
  const { lines, together, brushId } = useLaidPage();
  const mode = useDesk((desk) => desk.mode);
  const choose = useDesk((desk) => desk.choose);
  const chooseToo = useDesk((desk) => desk.chooseToo);
  const chooseAll = useDesk((desk) => desk.chooseAll);
  const setMoving = useDesk((desk) => desk.setMoving);
  const { draft, draw, move, moveAll } = useLineHands();
  const closing = useClosing(view.scale);
  const held = useRef<Held | null>(null);

  const reach = (event: React.PointerEvent): Reach => {
    const events = event.nativeEvent.getCoalescedEvents?.() ?? [];
    const all = events.length ? events : [event.nativeEvent];
    const times = all.map(({ timeStamp }) => timeStamp);
    return { client: [event.clientX, event.clientY], mm: at(event), along: all.map(at), times, straight: event.shiftKey };
  };
  /** What a press takes hold of; nothing where it sets a point. */
  const taken = (event: React.PointerEvent, from: Place): Held | null => {
    if (event.button === 1 || event.altKey) return pan(from, view, setView);
    if (mode && brushId)
      return mode === "hand" ? byHand({ place: at(event), time: event.timeStamp }, view.scale, closing, draft, draw) : null;
    const line = lines.find((each) => each.id === lineAt(at(event), scenes, motifOf, view.scale));
    if (event.shiftKey && line) {
      chooseToo(line.id);
      return null;
    }
    if (event.shiftKey) return pullBox(at(event), setPulled, (box) => chooseAll(linesWithin(box, scenes)));
    if (line && together.includes(line)) {
      const all = (by: Place): Moving => ({ ...STILL, by });
      const keep = (by: Place): void => moveAll(together, all(by));
      return moveLine(
        from,
        view.scale,
        (by) => setMoving(all(by)),
        keep,
        () => choose(line.id),
      );
    }
    choose(line?.id ?? null);
    if (!line) return pan(from, view, setView);
    const moved = (by: Place): void => void move(line, by).finally(() => setShift(null));
    return moveLine(from, view.scale, (by) => setShift({ id: line.id, by }), moved);
  };
  const giveUp = (): void => {
    held.current = null;
    byPoints.giveUp();
    setShift(null);
    setPulled(null);
    setMoving(null);
    draft(null);
  };
  const hands = {
    onPointerDown: (event: React.PointerEvent<HTMLDivElement>): void => {
      if (event.button > 1) return;
      held.current = taken(event, [event.clientX, event.clientY]);
      if (held.current) event.currentTarget.setPointerCapture(event.pointerId);
      else if (mode) byPoints.press(at(event));
    },
    onPointerMove: (event: React.PointerEvent): void => {
      if (held.current) held.current.move(reach(event));
      else if (mode === "points") byPoints.point(at(event));
    },
    onPointerUp: (event: React.PointerEvent): void => {
      const tool = held.current;
      held.current = null;
      tool?.up(reach(event));
    },
    onPointerCancel: giveUp,
    onDoubleClick: (): void => {
      if (mode === "points") byPoints.finish(false);
    },
  };
  return { hands, isHolding: () => held.current !== null, giveUp };
}
