import { useIsMutating, useQuery } from "@tanstack/react-query";
import { api, kept, type Brush, type Schemas } from "../../shared/api/client";
import { Choice } from "../../shared/ui/Choice";
import { NumberField } from "../../shared/ui/NumberField";
import { go } from "../../shared/ui/place";
import { CornerJoins } from "./CornerJoins";
import { heldAngle } from "./cornerView";
import { NAMES } from "./pieceNames";
import { CORNERS, type CornerRole } from "./roles";
import { useMakePiece } from "./useMakePiece";
import { useWork } from "./work";

type Way = Schemas["CornerWaysMessage"]["ways"][number];

const WORDS: Record<Way, string> = {
  mitre: "mitred",
  lap: "lapped",
  bend: "bent round",
  round: "set round it",
  across: "a block across it",
};

interface Props {
  brush: Brush;
  role: CornerRole;
  angle: number;
  versions: string;
  header: Pick<Schemas["CornerHeader"], "enters" | "leaves"> | null;
  onTurn: (angle: number) => void;
}

/** What a corner is, in words to press, and how its piece meets both runs. */
export function CornerWords({ brush, role, angle, versions, header, onTurn }: Props) {
  const turnTo = useWork((work) => work.turnTo);
  const make = useMakePiece(brush);
  const making = useIsMutating();
  const { data, error, isPlaceholderData } = useQuery({
    queryKey: ["corner-ways", brush.id, brush.version, role, versions],
    queryFn: () => kept(api.GET("/api/brushes/{id}/corner-ways/{role}", { params: { path: { id: brush.id, role } } })),
    placeholderData: (before) => before,
  });
  const piece = brush.pieces[role];
  const refused =
    error?.message ?? (data && !data.ways.length ? "No corner can be made of this repeat; trace or cut it first." : "");
  return (
    <div className="min-h-[148px] shrink-0 border-t border-rule bg-work px-5 py-3">
      <div className="flex items-baseline justify-between gap-6">
        <h2 className="min-w-0 truncate text-[15px]">
          The {NAMES[role]} of {brush.name}
        </h2>
        {header && <CornerJoins {...header} />}
      </div>
      <div className="mt-1.5 flex items-end gap-6">
        <Choice
          label="It turns to the"
          value={role}
          options={CORNERS.map((value) => ({ value, label: value === "outside_corner" ? "outside" : "inside" }))}
          onSet={(next) => turnTo({ brush: brush.id, role: next })}
        />
        <NumberField label="at" unit="°" value={angle} decimals={0} onSet={(deg) => onTurn(heldAngle(deg))} />
        {piece !== null && data && (
          <Choice
            label="and the repeat is"
            value={data.way ?? ""}
            options={data.ways.map((value) => ({ value, label: WORDS[value] }))}
            onSet={(way) => way && make(role, way)}
          />
        )}
      </div>
      <p className="mt-2.5 flex items-baseline gap-4 text-[12.5px]">
        {refused && <span className="text-madder">{refused}</span>}
        {piece === null && making > 0 && <span className="text-moss">Making it…</span>}
        {piece === null && !refused && !making && (
          <button className="plain-button" onClick={() => make(role)}>
            Make the {NAMES[role]}
          </button>
        )}
        {piece !== null && (
          <>
            <span className="text-moss">
              {data && !data.way && !isPlaceholderData
                ? "Worked on by hand; another way takes its place."
                : "In use. Another way takes its place."}
            </span>
            <button className="text-indigo underline decoration-dotted" onClick={() => go("motif", piece)}>
              Work on it by hand
            </button>
          </>
        )}
        <button className="plain-button ml-auto" onClick={() => turnTo(null)}>
          Done
        </button>
      </p>
    </div>
  );
}
