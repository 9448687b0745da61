import type { Settings } from "../api/client";

/** A JSON merge patch (RFC 7396) of settings, one section deep; a list, as what varies is one, is changed as a whole. */
export type SettingsChange = {
  [S in keyof Settings]?: NonNullable<Settings[S]> extends unknown[] ? Settings[S] : Partial<NonNullable<Settings[S]>>;
};

export function withChange(settings: Settings, change: SettingsChange | Record<string, Record<string, unknown>>): Settings {
  const next = structuredClone(settings) as unknown as Record<string, object>;
  for (const [section, values] of Object.entries(change)) {
    next[section] = Array.isArray(values) ? values : { ...next[section], ...values };
  }
  return next as unknown as Settings;
}
