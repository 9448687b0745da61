import { Frame, LINE, pills } from "./frame";

/** What becomes of what is left over. */

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
