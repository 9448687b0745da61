import { useQuery } from "@tanstack/react-query";
import { api, kept, type Schemas } from "../../shared/api/client";
import { useOpenMotif } from "./openMotif";
import { CORNERS } from "./roles";

/** What lies beside the open motif where it is the corner piece of a brush; null elsewhere, and until it has come. */
export function useItsCorner(): Schemas["CornerMessage"] | null {
  const { workshop, motif } = useOpenMotif();
  const brush = workshop.brushes.find(
    ({ pieces }) => !pieces.repeat.includes(motif.id) && CORNERS.some((each) => pieces[each] === motif.id),
  );
  const role = CORNERS.find((each) => brush?.pieces[each] === motif.id);
  const versions = workshop.motifs.map((each) => `${each.id}.${each.version}`).join(" ");
  const { data } = useQuery({
    enabled: brush !== undefined,
    queryKey: ["corner", brush?.id, brush?.version, role, versions],
    queryFn: () => kept(api.GET("/api/brushes/{id}/corner/{role}", { params: { path: { id: brush!.id, role: role! } } })),
    placeholderData: (before) => before,
  });
  return brush && data ? data : null;
}
