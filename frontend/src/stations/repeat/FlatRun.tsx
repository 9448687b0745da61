import { memo, useCallback, useMemo } from "react";
import type { Scene } from "../../shared/api/scenes";
import { blends, laidOf, paintPieces } from "../../shared/view/painter";
import { strokeHairline } from "../../shared/view/marks";
import type { Ctx, View } from "../../shared/view/view";
import type { Paint, Size, Under } from "../../shared/view/layers";
import { WorkCanvas } from "../../shared/view/WorkCanvas";
import { JoinLens } from "./JoinLens";
import { lensJoins, paintLens } from "./lens";
import type { BenchHeader } from "./types";
import { GroundChoice } from "./GroundChoice";
import { TightestBend } from "./TightestBend";
import { FlatMarks } from "./FlatMarks";
import { flatSizes, LEFT, markedPiece, raised, RIGHT } from "./flatSizes";
import { paintRule, RULE_FONT } from "./flatRule";
import { useBench } from "./bench";
import { useLaidBench, useOpenBench } from "./openBench";
import { useMotifsOf } from "./useInked";

/** The brush on a straight run, large, with the marks that are dragged and its first joins magnified. */
export const FlatRun = memo(function FlatRun({ scene, header }: { scene: Scene; header: BenchHeader }) {
  const { ground } = useOpenBench();
  const motifs = useMotifsOf(scene);
  const { scale, size, shown } = useLaidBench();
  const first = useMemo(() => markedPiece(scene, shown.hand), [scene, shown.hand]);
  const comparing = useBench((bench) => bench.comparing && bench.before !== null);
  const hurry = useBench((bench) => (bench.inHand ? "soft" : "none"));
  const { night, glass } = ground;
  const { middle, lens } = useMemo(() => flatSizes(size.height), [size.height]);
  const off = raised(header) * scale;
  const view = useMemo<View>(() => ({ scale, x: LEFT, y: middle + off }), [scale, middle, off]);
  const under = {
    key: `${scale} ${view.y} ${night} ${blends(scene) && glass} ${document.fonts.check(RULE_FONT)}`, // once more when the font is there
    paint: (ctx, box, ratio) => {
      const colours = night ? { rule: "#9db0a8", line: "#b9746b" } : { rule: "#56645d", line: "#c98d84" };
      if (blends(scene)) paintGround(ctx, glass, box);
      paintRule(ctx, box.width, scale, colours.rule);
      strokeHairline(ctx, `M${-LEFT / scale} 0H${(box.width - LEFT) / scale}`, view, ratio, colours.line, 1, [1, 4]);
    },
  } satisfies Under;
  const paint = useCallback<Paint>(
    (ctx, box, ratio) => {
      ctx.save();
      ctx.beginPath();
      ctx.rect(0, 40, box.width - RIGHT + 40, box.height);
      ctx.clip();
      paintPieces(ctx, laidOf(motifs, scene), view, ratio, { width: box.width - RIGHT + 40, height: box.height }, hurry);
      ctx.restore();
      lensJoins(lens, scene, box.width - RIGHT, first).forEach((join, place) =>
        paintLens(ctx, scene, motifs, join, place, lens, ratio, night, glass),
      );
    },
    [scene, motifs, view, lens, night, hurry, glass, first],
  );
  return (
    <>
      <WorkCanvas
        paint={paint}
        under={under}
        label={`Flat run of ${scene.pieces} pieces`}
        testId="flat-run"
        pieces={scene.pieces}
        className="absolute inset-0"
      />
      <div className="absolute top-1.5 left-5">
        <h2 className="text-[15px]">Flat run</h2>
        <p className={`mt-3 text-[12px] ${night ? "text-white/75" : "text-moss"}`}>
          {scene.pieces} pieces, {scene.length_mm.toFixed(0)} mm
          {scene.tapers_within_mm && (
            <span title={`A taper is drawn ${scene.tapers_within_mm.toFixed(0)} mm long here`}>, tapers shortened</span>
          )}
        </p>
        {comparing && <p className="mt-1 font-semibold text-madder">as it was before</p>}
      </div>
      <FlatMarks scene={scene} header={header} view={view} first={first} />
      {lensJoins(lens, scene, size.width - RIGHT, first).map((join, place) => (
        <JoinLens key={place} scene={scene} index={join} place={place} view={view} lens={lens} night={night} />
      ))}
      <TightestBend scene={scene} />
      <GroundChoice />
    </>
  );
});

/** Paint the ground flat, for what is laid on to blend with. */
function paintGround(ctx: Ctx, colour: string, { width, height }: Size): void {
  ctx.fillStyle = colour;
  ctx.fillRect(0, 0, width, height);
}
