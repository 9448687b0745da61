import { memo, useCallback, useMemo } from "react";
import type { Motif, Settings } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { laidOf, paintPieces } from "../../shared/view/painter";
import { strokeHairline } from "../../shared/view/marks";
import type { Ctx, View } from "../../shared/view/view";
import type { Paint, Under } from "../../shared/view/layers";
import { WorkCanvas } from "../../shared/view/WorkCanvas";
import { JoinLens, LENS, paintLens } from "./JoinLens";
import { sameShown } from "./sameShown";
import type { GroundState } from "./useGround";
import type { BenchHeader } from "./types";
import type { BrushEdit } from "./useBrushEdit";
import { GroundChoice } from "./GroundChoice";
import { Marks } from "./FlatMarks";
import { LEFT, RIGHT, MIDDLE } from "./flatSizes";

const RULE_FONT = '10.5px "Hanken Grotesk Variable"';

interface Props {
  scene: Scene;
  motifs: Motif[];
  header: BenchHeader;
  scale: number;
  size: { width: number; height: number };
  settings: Settings;
  edit: BrushEdit;
  comparing: boolean;
  ground: GroundState;
}

export const FlatRun = memo(FlatRunNow, sameShown(["scene", "motifs", "scale", "size", "settings", "ground", "comparing"]));

function FlatRunNow({ scene, motifs, header, scale, size, settings, edit, ground, comparing }: Props) {
  const { night, glass } = ground;
  const view = useMemo<View>(() => ({ scale, x: LEFT, y: MIDDLE }), [scale]);
  const under = {
    key: `${scale} ${night} ${document.fonts.check(RULE_FONT)}`, // once more when the font is there
    paint: (ctx, box, ratio) => {
      const colours = night ? { rule: "#9db0a8", line: "#b9746b" } : { rule: "#56645d", line: "#c98d84" };
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
      paintPieces(ctx, laidOf(motifs, scene), view, ratio, { width: box.width - RIGHT + 40, height: box.height });
      ctx.restore();
      for (let i = 0; i < LENS.count(scene, box.width - RIGHT); i++)
        paintLens(ctx, scene, motifs, i, LENS.left(i), ratio, night, glass);
    },
    [scene, motifs, view, night, glass],
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
      <Marks scene={scene} header={header} view={view} size={size} settings={settings} edit={edit} night={night} glass={glass} />
      {Array.from({ length: LENS.count(scene, size.width - RIGHT) }, (_, i) => (
        <JoinLens key={i} scene={scene} index={i} view={view} left={LENS.left(i)} night={night} />
      ))}
      <div className="absolute right-5 bottom-4 w-[228px]">
        <p className={`text-[12px] ${night ? "text-white/75" : "text-moss"}`}>Tightest bend it can take</p>
        <p className="text-[23px] leading-tight font-bold" data-testid="safe-radius">
          {scene.safe_mm === null ? "any bend" : `radius ${scene.safe_mm.toFixed(1)} mm`}
        </p>
        <p className={`text-[12px] ${night ? "text-white/75" : "text-moss"}`}>
          {scene.safe_mm === null ? "the pieces do not turn with the line" : NEEDS[settings.travel.round_bends ?? "rigid"]}
        </p>
      </div>
      <GroundChoice ground={ground} />
    </>
  );
}

/** Millimetre rule along the top, with figures at round steps. */
function paintRule(ctx: Ctx, width: number, scale: number, colour: string): void {
  const step = [0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500].find((mm) => mm * scale >= 34) ?? 1000;
  ctx.strokeStyle = colour;
  ctx.fillStyle = colour;
  ctx.lineWidth = 1;
  ctx.font = RULE_FONT;
  ctx.beginPath();
  ctx.moveTo(LEFT, 36.5);
  ctx.lineTo(width, 36.5);
  for (let i = 0; LEFT + (i * step * scale) / 5 < width - 8; i++) {
    const x = Math.round(LEFT + (i * step * scale) / 5) + 0.5;
    ctx.moveTo(x, 36);
    ctx.lineTo(x, i % 5 ? 31 : 24);
    if (i % 5 === 0) ctx.fillText(String(Number(((i * step) / 5).toFixed(2))) + (i === 0 ? " mm" : ""), x + 3, 24);
  }
  ctx.stroke();
}

const NEEDS = {
  rigid: "below it a join opens, closes or kinks beyond 0.1 mm or 15°",
  bent: "below it a piece folds over itself",
  jointed: "below it a link is too long to pass",
} as const;
