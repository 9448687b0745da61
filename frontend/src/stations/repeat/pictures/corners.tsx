import { Frame } from "./frame";

/** What a brush does at corners. */

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
