import { useLayoutEffect, useRef, useState } from "react";
import type { View } from "../../shared/view/view";
import { useDesk } from "./desk";
import { GroupHandle } from "./GroupHandle";
import { useLaidPage } from "./laidPage";
import { cornersOf, figuresOf, moved, scaledTo, STILL, turnedTo, type Box } from "./moved";
import type { Place } from "./tools/held";

const ABOVE_PX = 28; // the ring that turns stands so far above the frame

/** The frame about lines that are chosen together: its corners scale them, the ring above it turns them. */
export function GroupFrame({ view }: { view: View }) {
  const { together } = useLaidPage();
  const moving = useDesk((desk) => desk.moving) ?? STILL;
  const paths = useRef<SVGGElement>(null);
  const [box, setBox] = useState<Box | null>(null);
  const courses = together.map(({ path }) => path).join();
  useLayoutEffect(() => setBox(paths.current!.getBBox()), [courses]);
  const px = ([x, y]: Place): Place => [x * view.scale + view.x, y * view.scale + view.y];
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full">
      <g ref={paths} visibility="hidden">
        {together.map(({ id, path }) => (
          <path key={id} d={path} />
        ))}
      </g>
      {box && <Frame box={box} px={px} scale={view.scale} />}
      {box && moving !== STILL && (
        <text {...textAt(px(moved([box.x + box.width / 2, box.y + box.height], moving)))} className="text-[13px] font-bold">
          {figuresOf(moving)}
        </text>
      )}
    </svg>
  );
}

const textAt = ([x, y]: Place) => ({
  x,
  y: y + 24,
  textAnchor: "middle" as const,
  fill: "var(--color-madder)",
  stroke: "#fbfaf5",
  strokeWidth: 3,
  paintOrder: "stroke",
});

function Frame({ box, px, scale }: { box: Box; px: (place: Place) => Place; scale: number }) {
  const moving = useDesk((desk) => desk.moving) ?? STILL;
  const corners = cornersOf(box);
  const middle: Place = [box.x + box.width / 2, box.y + box.height / 2];
  const ring: Place = [middle[0], box.y - ABOVE_PX / scale];
  const seen = corners.map((corner) => px(moved(corner, moving)));
  const [rx, ry] = px(moved(ring, moving));
  const [tx, ty] = px(moved([middle[0], box.y], moving));
  return (
    <g stroke="var(--color-indigo)" fill="none" data-testid="group-frame">
      <polygon points={seen.map((place) => place.join()).join(" ")} strokeDasharray="5 3" />
      <path d={`M${tx} ${ty}L${rx} ${ry}`} />
      {corners.map((corner, k) => (
        <GroupHandle
          key={k}
          label={`Scale, ${["top left", "top right", "bottom right", "bottom left"][k]}`}
          value={Math.round(100 * moving.scale)}
          at={seen[k]}
          scale={scale}
          moving={(by) => scaledTo(corners[(k + 2) % 4], corner, [corner[0] + by[0], corner[1] + by[1]])}
          stepped={(by) => ({ ...STILL, about: middle, scale: 1 + by / 100 })}
        />
      ))}
      <GroupHandle
        round
        label="Turn"
        value={Math.round(moving.turn_deg)}
        at={[rx, ry]}
        scale={scale}
        moving={(by, fine) => turnedTo(middle, ring, [ring[0] + by[0], ring[1] + by[1]], fine)}
        stepped={(by) => ({ ...STILL, about: middle, turn_deg: by })}
      />
    </g>
  );
}
