import { useLayoutEffect, useId, type KeyboardEvent as ReactKeyboardEvent } from "react";
import { flushSync } from "react-dom";
import { create } from "zustand";

export interface KeyAction {
  letter: string;
  words: string;
  act: () => void;
}

interface Keys {
  waiting: boolean;
  sheet: boolean;
  /** Whether everything on the screen shows its letters. */
  lettered: boolean;
  set: (part: Partial<Pick<Keys, "waiting" | "sheet" | "lettered">>) => void;
}

/** Whether q was pressed, once or twice, and whether the key sheet is open. */
export const useKeys = create<Keys>((set) => ({
  waiting: false,
  sheet: false,
  lettered: false,
  set: (part) => set(part),
}));

/** The letters that follow q on the present screen; read when they are needed. */
const offered = new Map<string, KeyAction[]>();
export const lettersNow = (): KeyAction[] => [...offered.values()].flat();

// Keys are listened for from the moment on that the screen shows what they do: an effect after it would miss one pressed at once.

/** Offer letters after q while a screen, or a part of one, is open. */
export function useLetters(actions: KeyAction[]): void {
  const by = useId();
  useLayoutEffect(() => {
    offered.set(by, actions);
  });
  useLayoutEffect(() => () => void offered.delete(by), [by]);
}

const STEPS: Record<string, (columns: number) => number> = {
  ArrowLeft: () => -1,
  ArrowRight: () => 1,
  ArrowUp: (columns) => -columns,
  ArrowDown: (columns) => columns,
};

/** Step through the buttons of a grid of so many columns with the arrow keys; at its rim the focus stays. */
export function stepThrough(event: ReactKeyboardEvent<HTMLElement>, columns: number): void {
  const step = STEPS[event.key]?.(columns);
  if (!step) return;
  const buttons = [...event.currentTarget.querySelectorAll("button")];
  const at = buttons.indexOf(document.activeElement as HTMLButtonElement);
  if (at >= 0) buttons[at + step]?.focus();
  event.preventDefault();
}

export function isTyping(event: Event): boolean {
  const target = event.target as HTMLElement | null;
  return !!target && (target.tagName === "INPUT" || target.tagName === "TEXTAREA" || target.tagName === "SELECT");
}

/** Listen for keys on the whole window while a screen is open. */
export function useWindowKey(type: "keydown" | "keyup", then: (event: KeyboardEvent) => void): void {
  useLayoutEffect(() => {
    window.addEventListener(type, then);
    return () => window.removeEventListener(type, then);
  });
}

function fieldCalled(label: string): HTMLElement | null | undefined {
  const found = [...document.querySelectorAll("label")].find((l) => l.textContent === label);
  if (found?.htmlFor) return document.getElementById(found.htmlFor);
  const group = document.querySelector(`[role="group"][aria-label="${label}"], [role="dialog"][aria-label="${label}"]`);
  return (
    document.querySelector<HTMLElement>(`input[aria-label="${label}"]`) ??
    group?.querySelector<HTMLElement>('[data-state="on"], [aria-pressed="true"]') ??
    group?.querySelector("button")
  );
}

/**
 * Put the caret into a labelled field, or the focus on what is chosen of a group, or on its first button.
 * It is there before the next key is: a frame later, what is typed at once would go to the station. Only what is still on its way is
 * waited for.
 */
export function focusField(label: string): void {
  flushSync(() => {}); // what was just opened is on the screen
  const field = fieldCalled(label);
  if (field) field.focus();
  else requestAnimationFrame(() => fieldCalled(label)?.focus());
}

/** Press the first button whose name begins so, as if by hand: the focus is there, and in what it opens. Tell whether there is one. */
export function pressNamed(name: string): boolean {
  const called = (button: HTMLElement): string => button.getAttribute("aria-label") ?? button.textContent ?? "";
  const found = [...document.querySelectorAll<HTMLElement>("button, a[download]")].find((b) => called(b).trim().startsWith(name));
  if (!found || found.matches(":disabled")) return false;
  press(found);
  return true;
}

/** Press a button as if by hand: it has the focus, and a menu that it opens is open. */
export function press(button: HTMLElement): void {
  button.focus();
  if (button.getAttribute("aria-haspopup") === "menu")
    button.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowDown", bubbles: true }));
  else button.click();
}

/** Offers of letters that press buttons, and of those that go to fields, by their names. */
export const presses = (letter: string, words: string, name: string): KeyAction => ({
  letter,
  words,
  act: () => void pressNamed(name),
});
export const goesTo = (letter: string, words: string, field: string): KeyAction => ({
  letter,
  words,
  act: () => focusField(field),
});

/** As a ref of what comes first: what is opened goes on by keys, also where it comes later; a focus that is in there already stays. */
export const takeFocus = (first: HTMLElement | null): void => {
  if (!first?.closest('[role="dialog"]')?.contains(document.activeElement)) first?.focus();
};

/** What closes gives the focus back a moment later; what was opened by keys in between keeps it, or it would close at once. */
export const keepNewFocus = (event: Event): void => {
  if (document.activeElement !== document.body) event.preventDefault();
};

/** Do something when Escape is pressed that nothing else has taken. */
export const useEscape = (act: () => void): void =>
  useWindowKey("keydown", (event) => event.key === "Escape" && !event.defaultPrevented && act());
