import type { Line, Ready } from "../../shared/api/client";
import { useDesk } from "./desk";
import { useLaidPage } from "./laidPage";

const CORNERED = ["rectangle", "polygon", "star"]; // also where the brush rounds their corners

/** The hand that makes a line of its own of each side of a line that has corners. */
export function Sides({ line }: { line: Line }) {
  const { scenes, changes } = useLaidPage();
  const choose = useDesk((desk) => desk.choose);
  const runs = scenes.find((scene) => scene.line_id === line.id)?.runs ?? 0;
  const cornered = line.source.kind === "ready" && CORNERED.includes((line.source as unknown as Ready).shape);
  if (runs < 2 && !cornered) return null;
  return (
    <button
      className="thread-word text-[12.5px]"
      title="So that the motif runs true along each"
      onClick={() =>
        changes.part.mutate(line, {
          onSuccess: ({ lines }) => choose(lines.findLast((each) => each.name.startsWith(`${line.name}, side `))?.id ?? null),
        })
      }
    >
      each side a line of its own
    </button>
  );
}
