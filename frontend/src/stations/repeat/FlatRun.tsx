import { memo, useCallback, useMemo } from "react";
import type { Scene } from "../../shared/api/scenes";
import { blends, laidOf, paintPieces } from "../../shared/view/painter";
import { strokeHairline } from "../../shared/view/marks";
import type { Ctx, View } from "../../shared/view/view";
import type { Paint, Size, Under } from "../../shared/view/layers";
import { WorkCanvas } from "../../shared/view/WorkCanvas";
import { JoinLens } from "./JoinLens";
import { lensCount, paintLens } from "./lens";
import type { BenchHeader } from "./types";
import { GroundChoice } from "./GroundChoice";
import { TightestBend } from "./TightestBend";
import { FlatMarks } from "./FlatMarks";
import { flatSizes, LEFT, RIGHT } from "./flatSizes";
import { paintRule, RULE_FONT } from "./flatRule";
import { useBench } from "./bench";
import { useLaidBench, useOpenBench } from "./openBench";
import { useMotifsOf } from "./useInked";

/** The brush on a straight run, large, with the marks that are dragged and its first joins magnified. */
export const FlatRun = memo(function FlatRun({ scene, header }: { scene: Scene; header: BenchHeader }) {
  const { ground } = useOpenBench();
  const motifs = useMotifsOf(scene);
  const { scale, size } = useLaidBench();
  const comparing = useBench((bench) => bench.comparing && bench.before !== null);
  const hurry = useBench((bench) => (bench.inHand ? "soft" : "none"));
  const { night, glass } = ground;
  const { middle, lens } = useMemo(() => flatSizes(size.height), [size.height]);
  const view = useMemo<View>(() => ({ scale, x: LEFT, y: middle }), [scale, middle]);
  const under = {
    key: `${scale} ${middle} ${night} ${blends(scene) && glass} ${document.fonts.check(RULE_FONT)}`, // once more when the font is there
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
      for (let i = 0; i < lensCount(lens, scene, box.width - RIGHT); i++)
        paintLens(ctx, scene, motifs, i, lens, ratio, night, glass);
    },
    [scene, motifs, view, lens, night, hurry, glass],
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
        </p>
        {comparing && <p className="mt-1 font-semibold text-madder">as it was before</p>}
      </div>
      <FlatMarks scene={scene} header={header} view={view} />
      {Array.from({ length: lensCount(lens, scene, size.width - RIGHT) }, (_, i) => (
        <JoinLens key={i} scene={scene} index={i} view={view} lens={lens} night={night} />
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
