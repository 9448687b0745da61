import type { Settings } from "../../shared/api/client";
import type { BrushEdit } from "./useBrushEdit";

type Section = "travel" | "spacing" | "ends" | "variants" | "hand" | "joins";

/** Bind a number field to one setting: dragged as a draft, kept when let go. */
export function bound(edit: BrushEdit, settings: Settings, section: Section, key: string, words: string, unit: string) {
  const value = (settings[section] as unknown as Record<string, number>)[key];
  return {
    value,
    unit,
    limitsOf: `${section}.${key}`,
    onDrag: (next: number) => edit.drag({ [section]: { [key]: next } }),
    onSet: (next: number) => edit.set({ [section]: { [key]: next } }, `${words} to ${next} ${unit}`),
    onLeave: edit.release,
  };
}
