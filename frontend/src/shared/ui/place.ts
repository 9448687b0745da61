import { useSyncExternalStore } from "react";

export const STATIONS = ["motif", "repeat", "page", "shelf"] as const;
export type Station = (typeof STATIONS)[number];

export interface Place {
  station: Station;
  id: number | null;
}

function read(): string {
  return location.hash || "#/repeat";
}

const toldOfPlaces = new Set<() => void>();

function subscribe(told: () => void): () => void {
  toldOfPlaces.add(told);
  window.addEventListener("hashchange", told);
  return () => {
    toldOfPlaces.delete(told);
    window.removeEventListener("hashchange", told);
  };
}

/** Where the user is, kept in the address so that reload and back work. */
export function usePlace(): Place {
  const [, station, id] = useSyncExternalStore(subscribe, read).split("/");
  const known = STATIONS.find((s) => s === station) ?? "repeat";
  const number = Number(id);
  if (Number.isInteger(number) && number > 0) {
    sessionStorage.setItem(known, String(number));
    return { station: known, id: number };
  }
  return { station: known, id: lastAt(known) };
}

/** What was last open at a station in this window. */
export function lastAt(station: Station): number | null {
  const last = Number(sessionStorage.getItem(station));
  return last > 0 ? last : null;
}

export function go(station: Station, id?: number | null): void {
  location.hash = id ? `#/${station}/${id}` : `#/${station}`;
  toldOfPlaces.forEach((told) => told()); // the browser tells a moment later; what was open would be seen till then
}
