import type { Line } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { EXTENT } from "../../shared/api/tables";
import { useSize } from "../../shared/view/WorkCanvas";

interface Props {
  scene: Scene | undefined;
  strip: Scene["strip"];
  line: Line | null;
  onSpot: (at: [number, number]) => void;
}

const HEIGHT = 78;
const LEFT = 20;
const RIGHT = 112; // room for the level's figure and the section's padding

/** How tightly the chosen line bends along its length, against what its brush can take. */
export function BendStrip({ scene, strip, line, onSpot }: Props) {
  const [box, size] = useSize<HTMLElement>();
  const width = Math.max(100, size.width - LEFT - RIGHT);
  return (
    <section ref={box} aria-label="Bend strip" className="h-[148px] shrink-0 border-t border-rule bg-work px-5 pt-2">
      <header className="flex items-baseline gap-4">
        <h2 className="shrink-0 text-[15px]">Bend strip</h2>
        <p className="truncate text-[12.5px] text-moss">{words(scene, line)}</p>
      </header>
      {scene && strip && scene.length_mm > 0 && <Plot scene={scene} strip={strip} width={width} onSpot={onSpot} />}
    </section>
  );
}

function words(scene: Scene | undefined, line: Line | null): string {
  if (!line) return "Choose a line on the sheet or in the list to see how tightly it bends.";
  if (!scene) return `${line.name} is hidden.`;
  const tightest =
    scene.tightest_mm === null ? "straight between its corners" : `tightest bend ${scene.tightest_mm.toFixed(1)} mm`;
  const safe =
    scene.safe_mm === null
      ? "Its pieces do not turn with the line."
      : `Its brush is safe down to ${scene.safe_mm.toFixed(1)} mm.`;
  return `${line.name}: ${scene.length_mm.toFixed(1)} mm, ${tightest}. ${safe}`;
}

function Plot({
  scene,
  strip,
  width,
  onSpot,
}: {
  scene: Scene;
  strip: NonNullable<Scene["strip"]>;
  width: number;
  onSpot: Props["onSpot"];
}) {
  const { bend, vertices } = strip;
  const safe = scene.safe_mm ? 1 / scene.safe_mm : 0;
  let most = safe * 1.7;
  for (let i = 1; i < bend.length; i += 2) most = Math.max(most, Math.min(Math.abs(bend[i]), safe ? safe * 4 : 1));
  const x = (s: number) => LEFT + (s / scene.length_mm) * width;
  const y = (k: number) => HEIGHT - (Math.min(Math.abs(k), most) / (most || 1)) * (HEIGHT - 14);
  let d = `M${LEFT} ${HEIGHT}`;
  for (let i = 0; i < bend.length; i += 2) d += `L${x(bend[i]).toFixed(1)} ${y(bend[i + 1]).toFixed(1)}`;
  const step = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find((mm) => (mm / scene.length_mm) * width > 56) ?? 2000;
  const press = (event: React.MouseEvent<SVGSVGElement>): void => {
    const s = ((event.clientX - event.currentTarget.getBoundingClientRect().left - LEFT) / width) * scene.length_mm;
    const place = placeNear(scene, s);
    if (place) onSpot(place);
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
      {Array.from(
        { length: vertices.length / 2 },
        (_, i) =>
          Math.abs(vertices[2 * i + 1]) >= 5 && (
            <path
              key={i}
              d={`M${x(vertices[2 * i])} ${HEIGHT}V8`}
              stroke="var(--color-loden)"
              strokeWidth="1.4"
              strokeDasharray="2 2"
            />
          ),
      )}
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
      {Array.from({ length: Math.floor(scene.length_mm / step) + 1 }, (_, i) => (
        <text key={i} x={x(i * step)} y={HEIGHT + 15} fontSize="10.5" fill="var(--color-moss)" textAnchor="middle">
          {i * step}
        </text>
      ))}
    </svg>
  );
}

/** The page's place nearest to a distance along the line: a finding close by, else the nearest piece. */
function placeNear(scene: Scene, s: number): [number, number] | null {
  const close = scene.findings.find((f) => Math.abs(f.at_mm - s) < scene.length_mm * 0.015);
  if (close) return close.at;
  let best = -1;
  let apart = Infinity;
  for (let i = 0; i < scene.pieces; i++) {
    const gap = Math.abs(scene.extents[i * EXTENT.width] - s);
    if (gap < apart) [best, apart] = [i, gap];
  }
  return best < 0 ? null : [scene.matrices[best * 6 + 4], scene.matrices[best * 6 + 5]];
}
