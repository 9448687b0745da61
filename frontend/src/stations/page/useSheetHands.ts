import { useRef } from "react";
import type { Motif } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import type { View } from "../../shared/view/view";
import { useDesk } from "./desk";
import { useLaidPage } from "./laidPage";
import { lineAt } from "./sheetView";
import { byHand } from "./tools/byHand";
import type { Held, Place, Reach } from "./tools/held";
import { moveLine } from "./tools/moveLine";
import { pan } from "./tools/pan";
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
}

/** What the pointer does on the sheet: a press takes hold of a tool, or sets a point. */
export function useSheetHands({ view, setView, scenes, motifOf, at, byPoints, setShift }: Sheet) {
  const { lines, brushId } = useLaidPage();
  const mode = useDesk((desk) => desk.mode);
  const choose = useDesk((desk) => desk.choose);
  const { draft, draw, move } = useLineHands();
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
    choose(line?.id ?? null);
    if (!line) return pan(from, view, setView);
    const moved = (by: Place): void => void move(line, by).finally(() => setShift(null));
    return moveLine(from, view.scale, (by) => setShift({ id: line.id, by }), moved);
  };
  const giveUp = (): void => {
    held.current = null;
    byPoints.giveUp();
    setShift(null);
    draft(null);
  };
  const hands = {
    onPointerDown: (event: React.PointerEvent<HTMLDivElement>): void => {
      if (event.button > 1) return;
      held.current = taken(event, [event.clientX, event.clientY]);
      if (held.current) event.currentTarget.setPointerCapture(event.pointerId);
      else byPoints.press(at(event));
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
