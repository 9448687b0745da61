import type { Settings } from "../api/client";

/** A JSON merge patch (RFC 7396) of settings, one section deep. */
export type SettingsChange = { [S in keyof Settings]?: Partial<NonNullable<Settings[S]>> };

export function withChange(settings: Settings, change: SettingsChange | Record<string, Record<string, unknown>>): Settings {
  const next = structuredClone(settings) as Record<string, Record<string, unknown>>;
  for (const [section, values] of Object.entries(change)) next[section] = { ...next[section], ...values };
  return next as unknown as Settings;
}
