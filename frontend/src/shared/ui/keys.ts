import { useEffect } from "react";
import { create } from "zustand";

export interface KeyAction {
  letter: string;
  words: string;
  act: () => void;
}

interface Keys {
  waiting: boolean;
  sheet: boolean;
  set: (part: Partial<Pick<Keys, "waiting" | "sheet">>) => void;
}

/** Whether q was pressed, and whether the key sheet is open. */
export const useKeys = create<Keys>((set) => ({
  waiting: false,
  sheet: false,
  set: (part) => set(part),
}));

/** The letters that follow q on the present screen; read when they are needed. */
let letters: KeyAction[] = [];
export const lettersNow = (): KeyAction[] => letters;

/** Offer letters after q while a screen is open. */
export function useLetters(actions: KeyAction[]): void {
  useEffect(() => {
    letters = actions;
  });
  useEffect(
    () => () => {
      letters = [];
    },
    [],
  );
}

export function isTyping(event: Event): boolean {
  const target = event.target as HTMLElement | null;
  return !!target && (target.tagName === "INPUT" || target.tagName === "TEXTAREA" || target.tagName === "SELECT");
}

/** Listen for keys on the whole window while a screen is open. */
export function useWindowKey(type: "keydown" | "keyup", then: (event: KeyboardEvent) => void): void {
  useEffect(() => {
    window.addEventListener(type, then);
    return () => window.removeEventListener(type, then);
  });
}

/** Put the caret into a labelled field once it is on screen. */
export function focusField(label: string): void {
  requestAnimationFrame(() => {
    const found = [...document.querySelectorAll("label")].find((l) => l.textContent === label);
    if (found?.htmlFor) document.getElementById(found.htmlFor)?.focus();
    else document.querySelector<HTMLElement>(`[role="group"][aria-label="${label}"] [data-state="on"]`)?.focus();
  });
}
