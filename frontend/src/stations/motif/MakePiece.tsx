import { api, kept, type Brush, type Schemas } from "../../shared/api/client";
import { useChange } from "../../shared/api/queries";
import { CornerProposals, type CornerRole } from "./CornerProposals";
import { NAMES } from "./pieceNames";

export type Role = Schemas["MakePiece"]["role"];

const ENDS = [
  ["half of it", "half"],
  ["mirrored", "mirror"],
  ["turned", "turned"],
  ["the same", "same"],
] as const;
const isCorner = (role: Role): role is CornerRole => role.endsWith("corner");

interface Props {
  brush: Brush;
  role: Role;
  versions: string;
  onMade: () => void;
}

/** Ways to make a missing piece of the repeat. */
export function MakePiece({ brush, role, versions, onMade }: Props) {
  const make = useChange((input: { role: Role; way: Schemas["MakePiece"]["way"] }) =>
    kept<Brush>(
      api.POST("/api/brushes/{id}/make-piece", {
        params: { path: { id: brush.id } },
        body: { version: brush.version, ...input },
      }),
    ),
  );
  const take = (way: Schemas["MakePiece"]["way"]): void => make.mutate({ role, way }, { onSuccess: onMade });
  return (
    <>
      <p className="mt-1 text-[12.5px]">
        Make the {NAMES[role]} from the repeat:{" "}
        {!isCorner(role) &&
          ENDS.map(([words, way]) => (
            <button key={way} className="thread-word mr-2" onClick={() => take(way)}>
              {words}
            </button>
          ))}
      </p>
      {isCorner(role) && <CornerProposals brush={brush} role={role} versions={versions} onTake={take} />}
    </>
  );
}
