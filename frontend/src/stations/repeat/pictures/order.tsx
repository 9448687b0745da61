import { Frame, LINE } from "./frame";

/** Which one comes next, and border arrangements. */

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
