import { useOpenMotif } from "./openMotif";
import { moveTool, sizeTool, turnTool } from "./tools/parts";
import { useTool } from "./tools/tool";
import type { Box } from "./view";

const ARM = 24; // px from the parts to the knob that turns them

export function MoveMark({ box: [x0, y0, x1, y1], at, scale }: { box: Box; at: number; scale: number }) {
  const { edit, parts } = useOpenMotif();
  const moving = useTool(moveTool(parts, scale), edit);
  return (
    <g
      {...moving}
      role="slider"
      aria-label="Move the chosen parts"
      aria-valuenow={at}
      className="pointer-events-auto cursor-move"
      onPointerDown={(event) => {
        if (event.shiftKey) return; // Shift adds to or takes from what is chosen
        event.stopPropagation();
        moving.onPointerDown(event);
      }}
    >
      <rect
        x={x0 - 4}
        y={y0 - 4}
        width={x1 - x0 + 8}
        height={y1 - y0 + 8}
        fill="transparent"
        stroke="var(--color-indigo)"
        strokeWidth="1.3"
        strokeDasharray="6 3"
      />
    </g>
  );
}

export function SizeCorner({ box: [x0, y0, x1, y1] }: { box: Box }) {
  const { edit, parts } = useOpenMotif();
  const sizing = useTool(sizeTool(parts, [x1 - x0, y1 - y0]), edit);
  return (
    <g
      {...sizing}
      role="slider"
      aria-label="Size of the chosen parts"
      aria-valuenow={100}
      className="pointer-events-auto cursor-nwse-resize"
      onPointerDown={(event) => {
        event.stopPropagation();
        sizing.onPointerDown(event);
      }}
    >
      <rect x={x1 - 4} y={y1 - 4} width={24} height={24} fill="transparent" />
      <path
        d={`M${x1 + 2} ${y1 + 2}l13 13m0 -7v7h-7`}
        fill="none"
        stroke="var(--color-indigo)"
        strokeWidth="2.2"
        strokeLinecap="round"
      />
    </g>
  );
}

export function TurnKnob({ box: [x0, y0, x1, y1] }: { box: Box }) {
  const { edit, parts } = useOpenMotif();
  const [cx, cy] = [(x0 + x1) / 2, (y0 + y1) / 2];
  const ring = { x: cx, y: y0 - ARM };
  const turning = useTool(turnTool(parts, [0, ring.y - cy]), edit);
  return (
    <g
      {...turning}
      role="slider"
      aria-label="Turn the chosen parts"
      aria-valuenow={0}
      className="pointer-events-auto cursor-grab"
      onPointerDown={(event) => {
        event.stopPropagation();
        turning.onPointerDown(event);
      }}
    >
      <path
        d={`M${cx - 14} ${ring.y + 8}Q${cx} ${ring.y - 4} ${cx + 14} ${ring.y + 8}`}
        fill="none"
        stroke="var(--color-indigo)"
        strokeDasharray="2 4"
      />
      <circle cx={ring.x} cy={ring.y} r="12" fill="transparent" />
      <circle cx={ring.x} cy={ring.y} r="5" fill="#fff" stroke="var(--color-indigo)" strokeWidth="2" />
    </g>
  );
}
