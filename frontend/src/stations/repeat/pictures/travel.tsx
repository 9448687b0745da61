import { Frame, LINE, pills } from "./frame";

/** How a brush travels. */

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

const SCATTERED = [
  [6, 6, -20],
  [17, 15, 10],
  [28, 5, 35],
  [38, 14, -8],
  [49, 7, 15],
  [58, 16, -30],
];

export const KIND_PICTURES = {
  scattered: (
    <Frame>
      {LINE}
      {SCATTERED.map(([x, y, turn]) => (
        <rect
          key={x}
          x={x - 4}
          y={y - 2}
          width="8"
          height="4"
          rx="2"
          fill="var(--color-loden)"
          transform={`rotate(${turn} ${x} ${y})`}
        />
      ))}
    </Frame>
  ),
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
