import { useLayoutEffect, useRef, useState } from "react";
import { isKeeping, useLimits } from "../api/queries";
import { numberFromText } from "./sums";

export interface NumberSetting {
  value: number;
  unit: string;
  /** The setting's place in the brush document, whose limits hold. */
  limitsOf?: string;
  step?: number;
  decimals?: number;
  /** How many mm one of a unit that is no length stands for, where lengths may be typed too. */
  mmOfOne?: number;
  /** What it sets is a change by how much, from the figure that is shown: keys step on from that. */
  relative?: boolean;
  onDrag?: (value: number) => void;
  onSet: (value: number) => void;
  onLeave?: () => void;
}

/** A number under typing, stepping and dragging: its text, why it is refused, and the handlers of its field and label. */
export function useNumber(setting: NumberSetting) {
  const { value, unit, limitsOf, step = 1, decimals = 2, mmOfOne, relative = false, onDrag, onSet, onLeave } = setting;
  const textOf = (figure: number): string => String(Number(figure.toFixed(decimals)));
  const shown = textOf(value);
  const [field, setField] = useState({ text: shown, of: shown, typing: false });
  const { text, typing } = field;
  const [wrong, setWrong] = useState<string | null>(null);
  const refusal = useRefusal(limitsOf);
  const leaving = useRef(false);
  const from = useRef({ x: 0, value: 0, moved: false });
  /** What was set last and is not shown yet. */
  const ahead = useRef<number | null>(null);
  useLayoutEffect(() => {
    if (ahead.current !== null && textOf(ahead.current) === shown) ahead.current = null;
  });

  // while rendering, not in an effect: a drag would paint every step twice
  if (field.of !== shown) setField({ text: typing ? text : shown, of: shown, typing });
  const set = (next: number): void => {
    ahead.current = next;
    onSet(next);
  };
  /** What keys step on from: what was set last while changes are on their way. */
  const standing = (): number => (isKeeping() && !relative ? (ahead.current ?? value) : value);
  const settle = (settled: string): void => setField({ text: settled, of: shown, typing: false });

  const offer = (next: number | null, then: (value: number) => void): void => {
    const why = next === null ? "it must be a number" : refusal(next);
    setWrong(why);
    if (next !== null && why === null) then(next);
  };
  /** Take what was typed; tell whether nothing wrong is left in the field. */
  const take = (): boolean => {
    if (!typing) return wrong === null;
    const next = numberFromText(text, unit, mmOfOne);
    const why = next === null ? "it must be a number" : refusal(next);
    setWrong(why);
    if (next === null || why !== null) return false;
    const changes = Math.abs(next - value) > 1e-9;
    settle(changes ? text : shown);
    if (changes) set(next);
    return true;
  };
  /** Leave the field, so that keys go to the station again. */
  const leave = (of: HTMLElement): void => {
    leaving.current = true;
    of.blur();
    leaving.current = false;
  };
  const revert = (): void => {
    ahead.current = null;
    setWrong(null);
    settle(shown);
    onLeave?.();
  };
  const onKeyDown = (event: React.KeyboardEvent<HTMLInputElement>): void => {
    const way = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (way) {
      event.preventDefault();
      settle(text);
      offer(Number((standing() + way * step * (event.shiftKey ? 10 : 1)).toFixed(6)), set);
    } else if (event.key === "Enter") {
      if (take()) leave(event.currentTarget);
    } else if (event.key === "Escape") {
      event.stopPropagation();
      revert();
      leave(event.currentTarget);
    }
  };
  const dragged = (event: React.PointerEvent): number =>
    Number((from.current.value + Math.round((event.clientX - from.current.x) / 3) * step).toFixed(6));

  return {
    text,
    wrong,
    field: {
      onChange: (event: React.ChangeEvent<HTMLInputElement>): void => {
        setField({ text: event.target.value, of: shown, typing: true });
        setWrong(null);
      },
      onBlur: (): void => {
        if (!leaving.current) take();
      },
      onKeyDown,
    },
    label: {
      onPointerDown: (event: React.PointerEvent): void => {
        from.current = { x: event.clientX, value, moved: false };
        event.currentTarget.setPointerCapture(event.pointerId);
      },
      onPointerMove: (event: React.PointerEvent): void => {
        if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
        if (Math.abs(event.clientX - from.current.x) > 2) from.current.moved = true;
        if (from.current.moved) offer(dragged(event), onDrag ?? (() => undefined));
      },
      onPointerUp: (event: React.PointerEvent): void => {
        if (from.current.moved) offer(dragged(event), set);
      },
    },
  };
}

/** Return the question why a number is refused: the server's own words, or null when it is fine. */
function useRefusal(path: string | undefined): (value: number) => string | null {
  const { data } = useLimits();
  const limits = (data?.limits ?? []).filter((limit) => limit.path === path);
  const breaks = {
    gt: (v: number, b: number) => v <= b,
    ge: (v: number, b: number) => v < b,
    lt: (v: number, b: number) => v >= b,
    le: (v: number, b: number) => v > b,
  };
  return (value) => limits.find((limit) => breaks[limit.kind](value, limit.value))?.sentence ?? null;
}
