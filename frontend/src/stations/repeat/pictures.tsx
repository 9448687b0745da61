/** Tiny pictures of what a setting does: pills on a line 62 px long. */

function Frame({ children }: { children: React.ReactNode }) {
  return (
    <svg aria-hidden width="64" height="22" viewBox="0 0 64 22" className="mx-auto">
      {children}
    </svg>
  );
}

const LINE = <path d="M1 11H63" stroke="var(--color-madder)" strokeWidth=".8" strokeDasharray="1 2" />;

function pills(xs: number[], length: number, height = 7) {
  return xs.map((x) => (
    <rect key={x} x={x} y={11 - height / 2} width={length} height={height} rx={height / 2} fill="var(--color-loden)" />
  ));
}

export const EASE_PICTURES = {
  leave: (
    <Frame>
      {LINE}
      {pills([1, 16, 31], 12)}
      <path d="M46 6V16M63 6V16M46 11H63" stroke="var(--color-weld-ink)" fill="none" />
    </Frame>
  ),
  gaps: (
    <Frame>
      {LINE}
      {pills([1, 26, 51], 12)}
    </Frame>
  ),
  size: (
    <Frame>
      {LINE}
      {pills([1, 23.5, 46], 17, 10)}
    </Frame>
  ),
  length: (
    <Frame>
      {LINE}
      {pills([1, 23.5, 46], 17, 7)}
    </Frame>
  ),
};

const HUMP = (
  <path d="M2 19C18 19 20 5 32 5S46 19 62 19" fill="none" stroke="var(--color-madder)" strokeWidth=".8" strokeDasharray="1 2" />
);

export const BEND_PICTURES = {
  rigid: (
    <Frame>
      {HUMP}
      <rect x="4" y="15" width="15" height="5" rx="1" fill="var(--color-loden)" transform="rotate(-22 12 17)" />
      <rect x="24" y="3" width="15" height="5" rx="1" fill="var(--color-loden)" />
      <rect x="45" y="14" width="15" height="5" rx="1" fill="var(--color-loden)" transform="rotate(22 52 16)" />
    </Frame>
  ),
  bent: (
    <Frame>
      <path
        d="M3 19C18 19 20 5 32 5S46 19 61 19"
        fill="none"
        stroke="var(--color-loden)"
        strokeWidth="5"
        strokeDasharray="17 2"
      />
    </Frame>
  ),
  jointed: (
    <Frame>
      {HUMP}
      {[
        [3, 19, 17, 15],
        [17, 15, 25, 7],
        [25, 7, 38, 7],
        [38, 7, 47, 15],
        [47, 15, 61, 19],
      ].map(([a, b, c, d]) => (
        <g key={a}>
          <path d={`M${a} ${b}L${c} ${d}`} stroke="var(--color-loden)" strokeWidth="3.4" strokeLinecap="round" />
          <circle cx={a} cy={b} r="1.5" fill="#fff" stroke="var(--color-loden)" strokeWidth=".8" />
        </g>
      ))}
    </Frame>
  ),
};

const DRAWN = "M4 11C8 4 14 4 18 11H46C50 18 56 18 60 11";

export const KIND_PICTURES = {
  repeated: (
    <Frame>
      {LINE}
      {pills([1, 18, 35, 50], 12)}
    </Frame>
  ),
  once_length: (
    <Frame>
      <path d={DRAWN} fill="none" stroke="var(--color-loden)" strokeWidth="2.6" />
    </Frame>
  ),
  once_proportion: (
    <Frame>
      <path d={DRAWN} fill="none" stroke="var(--color-loden)" strokeWidth="5" />
    </Frame>
  ),
};

function Sequence({ marks }: { marks: number[] }) {
  const ways = ["M-4 0A4 4 0 1 0 4 0A4 4 0 1 0-4 0", "M-4-4H4V4H-4Z", "M0-4.6L4.6 3.6H-4.6Z"];
  return (
    <Frame>
      {LINE}
      {marks.map((mark, i) => (
        <path key={i} d={ways[mark]} transform={`translate(${6 + i * 10.4} 11)`} fill="var(--color-loden)" />
      ))}
    </Frame>
  );
}

/** A small flag for each copy of a motif: its mirrors say which arrangement it is. */
function Flags({ copies }: { copies: [number, number][][] }) {
  const marks = Array.from({ length: 4 }, (_, i) => copies[i % copies.length]);
  return (
    <Frame>
      {LINE}
      {marks.flatMap((own, i) =>
        own.map(([fx, fy], k) => (
          <path
            key={`${i} ${k}`}
            d="M-5 0V-7.5L4.5-4L-3.4-1.6V0Z"
            transform={`translate(${9 + i * 15.4} 11) scale(${fx} ${fy})`}
            fill="var(--color-loden)"
          />
        )),
      )}
    </Frame>
  );
}

export const BORDER_PICTURES = {
  slide: <Flags copies={[[[1, 1]]]} />,
  glide: <Flags copies={[[[1, 1]], [[1, -1]]]} />,
  upright: <Flags copies={[[[1, 1]], [[-1, 1]]]} />,
  along: (
    <Flags
      copies={[
        [
          [1, 1],
          [1, -1],
        ],
      ]}
    />
  ),
  half_turn: <Flags copies={[[[1, 1]], [[-1, -1]]]} />,
  half_turn_glide: <Flags copies={[[[1, 1]], [[-1, 1]], [[1, -1]], [[-1, -1]]]} />,
  all: (
    <Flags
      copies={[
        [
          [1, 1],
          [1, -1],
        ],
        [
          [-1, 1],
          [-1, -1],
        ],
      ]}
    />
  ),
};

export const ORDER_PICTURES = {
  in_turn: <Sequence marks={[0, 1, 2, 0, 1, 2]} />,
  shuffled: <Sequence marks={[2, 0, 1, 0, 2, 1]} />,
  chance: <Sequence marks={[0, 0, 2, 1, 1, 0]} />,
  no_twin: <Sequence marks={[0, 2, 0, 1, 2, 1]} />,
};

export const REST_PICTURES = {
  end: (
    <Frame>
      {LINE}
      {pills([1, 16, 31], 12)}
    </Frame>
  ),
  both: (
    <Frame>
      {LINE}
      {pills([10.5, 25.5, 40.5], 12)}
    </Frame>
  ),
  start: (
    <Frame>
      {LINE}
      {pills([21, 36, 51], 12)}
    </Frame>
  ),
};

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
};

function Corner({ butt }: { butt: boolean }) {
  return (
    <Frame>
      <path d="M6 5H48V22" fill="none" stroke="var(--color-madder)" strokeWidth=".8" strokeDasharray="1 2" />
      {butt ? (
        <>
          <rect x="8" y="2" width="18" height="6" rx="3" fill="var(--color-loden)" />
          <rect x="30" y="2" width="18" height="6" rx="3" fill="var(--color-loden)" />
          <rect x="45" y="6" width="6" height="15" rx="3" fill="var(--color-loden)" />
        </>
      ) : (
        <>
          <rect x="16" y="2" width="18" height="6" rx="3" fill="var(--color-loden)" />
          <rect x="38" y="2" width="18" height="6" rx="3" fill="var(--color-loden)" />
          <rect x="45" y="12" width="6" height="10" rx="3" fill="var(--color-loden)" />
        </>
      )}
    </Frame>
  );
}

const RoundCorner = (
  <Frame>
    <path d="M6 5H36A12 12 0 0 1 48 17V22" fill="none" stroke="var(--color-loden)" strokeWidth="5" strokeDasharray="15 2" />
  </Frame>
);

const Bar = ({ d }: { d: string }) => <path d={d} fill="var(--color-loden)" />;
const MitreCorner = (
  <Frame>
    <Bar d="M6 2H51L46 7H6Z" />
    <Bar d="M52 3V22H47V8Z" />
  </Frame>
);
const LapCorner = (
  <Frame>
    <Bar d="M6 2H52V7H6Z" />
    <Bar d="M47 8H52V22H47Z" />
  </Frame>
);
const PieceCorner = (
  <Frame>
    <Bar d="M6 2H40V7H6Z" />
    <Bar d="M47 15H52V22H47Z" />
    <rect x="42" y="1" width="12" height="12" rx="2.5" fill="none" stroke="var(--color-loden)" strokeWidth="2" />
    <circle cx="48" cy="7" r="2.4" fill="var(--color-loden)" />
  </Frame>
);

export const CORNER_PICTURES = {
  mitre: MitreCorner,
  lap: LapCorner,
  piece: PieceCorner,
  round: RoundCorner,
  through: <Corner butt={false} />,
  butt: <Corner butt />,
};
