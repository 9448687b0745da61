import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, kept, type Brush, type Schemas } from "../../shared/api/client";
import { useChange, withVersion } from "../../shared/api/queries";
import { Choice } from "../../shared/ui/Choice";
import { BORDER_PICTURES } from "./pictures/order";
import { useOpenBench } from "./openBench";

/** The seven border arrangements: the one that the repeat has is marked, another is made of its first motif. */
export function Borders() {
  const { brush } = useOpenBench();
  const now = useQuery({
    queryKey: ["border", brush.id, brush.version],
    queryFn: () => kept(api.GET("/api/brushes/{id}/border", { params: { path: { id: brush.id } } })),
    placeholderData: keepPreviousData,
  });
  const change = useChange((arrangement: Border) =>
    withVersion("brush", brush, (version) =>
      kept<Brush>(api.POST("/api/brushes/{id}/border", { params: { path: { id: brush.id } }, body: { version, arrangement } })),
    ),
  );
  return (
    <Choice
      small
      label="Border arrangement, laid without gaps"
      value={(now.data?.arrangement ?? "") as Border}
      options={BORDERS.map(([value, label]) => ({ value, label, picture: BORDER_PICTURES[value] }))}
      onSet={(arrangement) => change.mutate(arrangement)}
    />
  );
}

type Border = Schemas["BorderMessage"]["arrangement"];

const BORDERS: [Border, string][] = [
  ["slide", "slide"],
  ["glide", "glide"],
  ["upright", "upright"],
  ["along", "along"],
  ["half_turn", "half turn"],
  ["half_turn_glide", "turn glide"],
  ["all", "all"],
];
