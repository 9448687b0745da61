import type { Scene } from "../../shared/api/scenes";
import { useDesk } from "./desk";
import { placeNear } from "./placeNear";

const HEIGHT = 78;
const LEFT = 20;
const RIGHT = 112; // room for the level's figure and the section's padding

/** The plot's own width within a strip, px. */
export const plotWidth = (strip: number): number => Math.max(100, strip - LEFT - RIGHT);

interface Props {
  scene: Scene;
  strip: NonNullable<Scene["strip"]>;
  width: number;
}

/** Curvature along a line with the level that its brush can take; a press goes to the place on the page. */
export function BendPlot({ scene, strip, width }: Props) {
  const lookAt = useDesk((desk) => desk.lookAt);
  const { bend, vertices } = strip;
  const safe = scene.safe_mm ? 1 / scene.safe_mm : 0;
  let most = safe * 1.7;
  for (let i = 1; i < bend.length; i += 2) most = Math.max(most, Math.min(Math.abs(bend[i]), safe ? safe * 4 : 1));
  const x = (s: number) => LEFT + (s / scene.length_mm) * width;
  const y = (k: number) => HEIGHT - (Math.min(Math.abs(k), most) / (most || 1)) * (HEIGHT - 14);
  let d = `M${LEFT} ${HEIGHT}`;
  for (let i = 0; i < bend.length; i += 2) d += `L${x(bend[i]).toFixed(1)} ${y(bend[i + 1]).toFixed(1)}`;
  const press = (event: React.MouseEvent<SVGSVGElement>): void => {
    const s = ((event.clientX - event.currentTarget.getBoundingClientRect().left - LEFT) / width) * scene.length_mm;
    const place = placeNear(scene, s);
    if (place) lookAt(place);
  };
  return (
    <svg
      width={LEFT + width + RIGHT}
      height={HEIGHT + 22}
      className="cursor-pointer"
      role="img"
      aria-label="Bend along the line"
      data-testid="bend-plot"
      onClick={press}
    >
      <path
        d={`${d}L${LEFT + width} ${HEIGHT}Z`}
        fill="var(--color-indigo)"
        fillOpacity=".14"
        stroke="var(--color-indigo)"
        strokeWidth="1.3"
      />
      {safe > 0 && (
        <>
          <path d={`M${LEFT} ${y(safe)}H${LEFT + width}`} stroke="var(--color-weld)" strokeWidth="1.6" strokeDasharray="6 4" />
          <text x={LEFT + width + 6} y={y(safe) + 4} fontSize="11.5" fill="var(--color-weld-ink)">
            safe {scene.safe_mm!.toFixed(1)}
          </text>
        </>
      )}
      <Corners vertices={vertices} x={x} />
      {scene.findings.map((f, i) => (
        <path
          key={i}
          d={`M${x(Math.min(f.at_mm, scene.length_mm))} 2l5 9h-10z`}
          fill="var(--color-weld)"
          stroke="#fff"
          strokeWidth=".6"
        >
          <title>{f.message}</title>
        </path>
      ))}
      <Distances length={scene.length_mm} width={width} x={x} />
    </svg>
  );
}

/** Where the line turns by a corner, as dashed uprights. */
function Corners({ vertices, x }: { vertices: ArrayLike<number>; x: (s: number) => number }) {
  const at = Array.from({ length: vertices.length / 2 }, (_, i) => i).filter((i) => Math.abs(vertices[2 * i + 1]) >= 5);
  return at.map((i) => (
    <path key={i} d={`M${x(vertices[2 * i])} ${HEIGHT}V8`} stroke="var(--color-loden)" strokeWidth="1.4" strokeDasharray="2 2" />
  ));
}

/** The distances along the line, in mm, as far apart as reads well. */
function Distances({ length, width, x }: { length: number; width: number; x: (s: number) => number }) {
  const step = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find((mm) => (mm / length) * width > 56) ?? 2000;
  return Array.from({ length: Math.floor(length / step) + 1 }, (_, i) => (
    <text key={i} x={x(i * step)} y={HEIGHT + 15} fontSize="10.5" fill="var(--color-moss)" textAnchor="middle">
      {i * step}
    </text>
  ));
}
