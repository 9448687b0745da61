import type { Line } from "../../shared/api/client";
import { useLaidPage } from "./laidPage";

/** Whether a line leaves something to chance, its arrangement, and the hand that deals it again. */
export function useDealAgain(line: Line | null) {
  const { changes, workshop } = useLaidPage();
  const settings = workshop.brushes.find(({ id }) => id === line?.brush_id)?.settings;
  const order = settings?.variants?.order ?? "in_turn";
  const chance = order !== "in_turn" || (settings?.variations ?? []).some(({ follows }) => (follows ?? "chance") === "chance");
  const arrangement = line?.arrangement ?? settings?.variants?.arrangement ?? 1;
  const again = (): void => {
    if (line && chance) changes.change.mutate({ line, arrangement: arrangement + 1, label: `deal ${line.name} again` });
  };
  return { chance, arrangement, again };
}
