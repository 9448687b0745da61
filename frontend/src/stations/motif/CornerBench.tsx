import { useEffect, useMemo, useRef, useState } from "react";
import type { Brush, Schemas } from "../../shared/api/client";
import { useSceneMotifs } from "../../shared/api/motifs";
import { useLay } from "../../shared/api/useLay";
import { useEscape } from "../../shared/ui/keys";
import { useSize } from "../../shared/view/WorkCanvas";
import { CornerAngle } from "./CornerAngle";
import { CornerPicture } from "./CornerPicture";
import { CornerWords } from "./CornerWords";
import { cornerView } from "./cornerView";
import { useOpenMotif } from "./openMotif";
import type { CornerRole } from "./roles";
import { useWork } from "./work";

/** One corner of a brush, large and live, at an angle that is dragged; its making in words below. */
export function CornerBench({ brush, role }: { brush: Brush; role: CornerRole }) {
  const { workshop } = useOpenMotif();
  const night = useWork((work) => work.night);
  const turnTo = useWork((work) => work.turnTo);
  const [angle, setAngle] = useState(90);
  const [box, size] = useSize<HTMLDivElement>();
  const versions = workshop.motifs.map((m) => `${m.id}.${m.version}`).join(" ");
  const made = brush.pieces[role] !== null;
  const body = useMemo(() => ({ brush_id: brush.id, role, angle_deg: angle }), [brush.id, role, angle]);
  const path = made ? `/api/corners/lay#${brush.version} ${versions}` : null;
  const { laid, refusal } = useLay<typeof body, Schemas["CornerHeader"]>(path, body, { cures: false });
  const scene = made && laid?.of.role === role ? laid.scenes[0] : null;
  const scenes = useMemo(() => (scene ? [scene] : []), [scene]);
  const motifsOf = useSceneMotifs(scenes, workshop.motifs);
  const side = role === "outside_corner" ? 1 : -1;
  const view = useMemo(() => cornerView(size, laid?.header.reach_mm ?? 1, side), [size, laid?.header.reach_mm, side]);
  const shown = scene !== null;
  const held = useRef(false);
  useEffect(() => {
    if (!shown || held.current) return;
    held.current = true; // once: arrows turn it at once, and later the focus stays where it is
    box.current?.querySelector<SVGElement>('[role="slider"]')?.focus({ preventScroll: true });
  }, [shown, box]);
  useEscape(() => turnTo(null));
  return (
    <section aria-label="Corner" className="flex min-h-0 flex-1 flex-col">
      <div ref={box} className={`relative min-h-0 flex-1 overflow-hidden ${night ? "weave-night" : "weave"}`}>
        {scene && <CornerPicture scene={scene} motifs={motifsOf(scene)} view={view} night={night} name={brush.name} />}
        {scene && <CornerAngle angle={angle} side={side} view={view} size={size} night={night} onTurn={setAngle} />}
        {refusal && (
          <p role="alert" className="absolute inset-x-5 top-3 text-madder">
            {refusal}
          </p>
        )}
      </div>
      <CornerWords
        brush={brush}
        role={role}
        angle={angle}
        versions={versions}
        header={scene ? (laid?.header ?? null) : null}
        onTurn={setAngle}
      />
    </section>
  );
}
