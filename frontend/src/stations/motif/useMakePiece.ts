import { api, kept, type Brush, type Schemas } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";

type MakePiece = Schemas["MakePiece"];

/** Make a piece of a brush from its repeat and use it; a corner in the way that suits the brush, where none is told. */
export function useMakePiece(brush: Brush) {
  const { mutate } = useChange((input: Pick<MakePiece, "role" | "way">) =>
    kept<Brush>(
      api.POST("/api/brushes/{id}/make-piece", {
        params: { path: { id: brush.id } },
        body: { version: brush.version, ...input },
      }),
    ),
  );
  return (role: MakePiece["role"], way: MakePiece["way"] = null, onSuccess?: () => void): void =>
    mutate({ role, way }, { onSuccess });
}
