import { Frame, LINE } from "./frame";

/** Which way pieces face, and which are mirrored. */

function Leaf({ x, y, turn, flip = 1 }: { x: number; y: number; turn: number; flip?: number }) {
  return (
    <path
      transform={`translate(${x} ${y}) rotate(${turn}) scale(${flip} 1)`}
      d="M-6 2C-5 -3 0 -5 6 -4C5 1 0 4 -6 2Z"
      fill="var(--color-loden)"
    />
  );
}

const ARCH = <path d="M4 20C14 2 50 2 60 20" fill="none" stroke="var(--color-madder)" strokeWidth=".8" strokeDasharray="1 2" />;

export const FACING_PICTURES = {
  line: (
    <Frame>
      {ARCH}
      <Leaf x={10} y={13} turn={-48} />
      <Leaf x={32} y={7} turn={0} />
      <Leaf x={54} y={13} turn={48} />
    </Frame>
  ),
  page: (
    <Frame>
      {ARCH}
      <Leaf x={10} y={13} turn={0} />
      <Leaf x={32} y={7} turn={0} />
      <Leaf x={54} y={13} turn={0} />
    </Frame>
  ),
  start: (
    <Frame>
      {ARCH}
      <Leaf x={10} y={13} turn={-48} />
      <Leaf x={32} y={7} turn={-48} />
      <Leaf x={54} y={13} turn={-48} />
    </Frame>
  ),
};

export const MIRROR_PICTURES = {
  off: (
    <Frame>
      {LINE}
      <Leaf x={10} y={11} turn={0} />
      <Leaf x={32} y={11} turn={0} />
      <Leaf x={54} y={11} turn={0} />
    </Frame>
  ),
  up_down: (
    <Frame>
      {LINE}
      <Leaf x={10} y={11} turn={180} flip={-1} />
      <Leaf x={32} y={11} turn={180} flip={-1} />
      <Leaf x={54} y={11} turn={180} flip={-1} />
    </Frame>
  ),
  left_right: (
    <Frame>
      {LINE}
      <Leaf x={10} y={11} turn={0} flip={-1} />
      <Leaf x={32} y={11} turn={0} flip={-1} />
      <Leaf x={54} y={11} turn={0} flip={-1} />
    </Frame>
  ),
  every_second: (
    <Frame>
      {LINE}
      <Leaf x={10} y={11} turn={0} />
      <Leaf x={32} y={11} turn={0} flip={-1} />
      <Leaf x={54} y={11} turn={0} />
    </Frame>
  ),
  sides: (
    <Frame>
      {LINE}
      <Leaf x={10} y={11} turn={0} />
      <Leaf x={32} y={11} turn={180} flip={-1} />
      <Leaf x={54} y={11} turn={0} />
    </Frame>
  ),
};
