import { Choice } from "../../shared/ui/Choice";
import { useOpenPicture } from "./openPicture";

/** How the picture is seen: as it is, or what is left of it on checks or on dark. */
export type Seen = "picture" | "checks" | "night";

/** What is left of a picture where something of it turns clear, on its place over a ground that shows through. */
export function ClearedPicture({ seen, scale }: { seen: Seen; scale: number }) {
  const { preview, original } = useOpenPicture();
  if (!preview?.cleared || seen === "picture") return null;
  const [x, y, width, height] = preview.cleared_px;
  return (
    <div
      data-testid="cleared"
      className={`pointer-events-none absolute inset-0 overflow-hidden ${seen === "night" ? "bg-[#1d2624]" : "checks"}`}
    >
      <img
        alt={`What is left of ${original.name}`}
        draggable={false}
        className="absolute"
        style={{ left: x * scale, top: y * scale, width: width * scale, height: height * scale, maxWidth: "none" }}
        src={preview.cleared}
      />
    </div>
  );
}

const SEEN: { value: Seen; label: string }[] = [
  { value: "picture", label: "as it is" },
  { value: "checks", label: "what is left, on checks" },
  { value: "night", label: "on dark" },
];

/** How the picture is seen, to choose where something of it turns clear. */
export function SeenChoice({ seen, onSet }: { seen: Seen; onSet: (seen: Seen) => void }) {
  if (!useOpenPicture().preview?.cleared) return null;
  return (
    <div className="absolute right-3 bottom-1 bg-work/90 px-1.5">
      <Choice small hidden label="Seen" value={seen} options={SEEN} onSet={onSet} />
    </div>
  );
}
