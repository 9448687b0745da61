import type { Line } from "../../shared/api/client";
import { Caution } from "../../shared/ui/Verdict";
import { useDesk } from "./desk";
import { useLaidPage } from "./laidPage";
import { BrushPicture } from "./BrushPicture";
import { Mini } from "./Mini";

const CURRENT = "aria-[current]:border-l-4 aria-[current]:border-l-indigo";

/** A line in the list: its brush, its name and count, where it lies among the others, and whether it is seen. */
export function LineItem({ line, place, first, last }: { line: Line; place: number; first: boolean; last: boolean }) {
  const { workshop, scenes, chosen, together, changes } = useLaidPage();
  const choose = useDesk((desk) => desk.choose);
  const chooseToo = useDesk((desk) => desk.chooseToo);
  const scene = scenes.find((s) => s.line_id === line.id);
  const brush = workshop.brushes.find((b) => b.id === line.brush_id);
  const shows = line.visible ? "hide" : "show";
  return (
    <li
      aria-current={chosen?.id === line.id || together.includes(line) || undefined}
      className={`flex h-[44px] items-center gap-2 border-b border-rule bg-work pr-1 ${CURRENT}`}
    >
      <button
        className="flex h-full min-w-0 flex-1 items-center gap-2 pl-2 text-left"
        onClick={(event) => (event.shiftKey ? chooseToo : choose)(line.id)}
      >
        <BrushPicture brushId={line.brush_id} />
        <span className={`min-w-0 flex-1 leading-tight ${line.visible ? "" : "opacity-55"}`}>
          <span className="block truncate font-semibold">{line.name}</span>
          <span className="block truncate text-[12px] text-moss">
            {line.visible ? (scene?.pieces ?? "…") : "hidden"} · {brush?.name}
            {line.size_pct === 100 ? "" : ` · ${Number(line.size_pct.toFixed(1))} %`}
          </span>
        </span>
        {(scene?.findings.length || scene?.refused) && <Caution size={12} />}
      </button>
      <span className="flex shrink-0">
        <Mini
          label={`Bring ${line.name} forward`}
          disabled={first}
          onPress={() => changes.change.mutate({ line, to_place: place - 1, label: `${line.name} forward` })}
        >
          <path d="M3 8L7 4L11 8" />
        </Mini>
        <Mini
          label={`Send ${line.name} back`}
          disabled={last}
          onPress={() => changes.change.mutate({ line, to_place: place + 1, label: `${line.name} back` })}
        >
          <path d="M3 6L7 10L11 6" />
        </Mini>
      </span>
      <button
        aria-label={`${line.visible ? "Hide" : "Show"} ${line.name}`}
        className="h-[26px] w-[34px] shrink-0 text-[12px] text-moss underline decoration-dotted hover:text-loden"
        onClick={() => changes.change.mutate({ line, visible: !line.visible, label: `${shows} ${line.name}` })}
      >
        {shows}
      </button>
    </li>
  );
}
