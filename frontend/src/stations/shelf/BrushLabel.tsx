import { useState } from "react";
import type { Brush } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { go } from "../../shared/ui/place";
import { Swatch, type BrushSwatch } from "../../shared/view/Swatch";
import { Doings } from "./Doings";
import { Renaming } from "./Renaming";

/** A brush as a woven label: its swatch, its name, what it can take. */
export function BrushLabel({ brush, swatch, onCopy }: { brush: Brush; swatch: BrushSwatch | undefined; onCopy: () => void }) {
  const [renaming, setRenaming] = useState(false);
  return (
    <li className="relative border border-rule bg-work" data-testid={`label-${brush.id}`}>
      <span aria-hidden className="absolute inset-y-0 left-0 w-[7px] border-r border-dashed border-madder bg-madder-wash" />
      <span aria-hidden className="absolute inset-y-0 right-0 w-[7px] border-l border-dashed border-madder bg-madder-wash" />
      <button
        className="block h-[max(150px,11.7vw)] w-full px-4 pt-2"
        aria-label={`Open ${brush.name}`}
        onClick={() => go("repeat", brush.id)}
      >
        <Swatch of={swatch} label={`${brush.name} on the swatch`} />
      </button>
      <div className="px-4 pb-2.5">
        {renaming ? (
          <Renaming brush={brush} onDone={() => setRenaming(false)} />
        ) : (
          <h3 className="truncate text-[15px]">{brush.name}</h3>
        )}
        <p className="text-[12.5px] text-moss">{traits(swatch?.scene)}</p>
        <Doings brush={brush} onCopy={onCopy} onRename={() => setRenaming(true)} />
      </div>
    </li>
  );
}

function traits(scene: Scene | undefined): string {
  if (!scene) return " ";
  if (scene.refused) return scene.refused;
  const pitch = `every ${(scene.wished_pitch_mm ?? 0).toFixed(2)} mm`;
  return scene.safe_mm == null ? `${pitch}, takes any bend` : `${pitch}, needs radius ≥ ${scene.safe_mm.toFixed(0)} mm`;
}
