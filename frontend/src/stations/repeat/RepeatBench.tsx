import { useMemo } from "react";
import type { Brush, Motif, Workshop } from "../../shared/api/client";
import { lightens } from "../../shared/view/painter";
import { useSize } from "../../shared/view/WorkCanvas";
import { BenchProvider } from "./bench";
import { FlatRun } from "./FlatRun";
import { LaidBenchContext, OpenBenchContext, useLaidBench } from "./openBench";
import { Trials } from "./Trials";
import { useBenchKeys } from "./useBenchKeys";
import { useBrushHands } from "./useBrushHands";
import { useGround } from "./useGround";
import { useLaying } from "./useLaying";
import { Words } from "./Words";

const BAND = "relative h-[36vh] max-h-[560px] min-h-[244px] shrink-0 border-b [contain:strict] border-rule";

interface Props {
  brush: Brush;
  motifs: Motif[];
  workshop: Workshop;
}

/** One brush at work: its flat run, its trial lines, and its words. */
export function Bench(props: Props) {
  return (
    <BenchProvider of={undefined}>
      <OpenedBench {...props} />
    </BenchProvider>
  );
}

function OpenedBench({ brush, motifs, workshop }: Props) {
  const hands = useBrushHands(brush);
  const ground = useGround(lightens(brush.settings.ink?.laid_on_as));
  const open = useMemo(
    () => ({ brush, motifs, repeats: motifs.slice(0, brush.pieces.repeat.length), workshop, hands, ground }),
    [brush, motifs, workshop, hands, ground],
  );
  const [flatBox, size] = useSize<HTMLElement>();
  const laid = useLaying(open, size, workshop.history);
  return (
    <OpenBenchContext value={open}>
      <LaidBenchContext value={laid}>
        <Keys />
        <div className="flex h-full flex-col">
          <section
            ref={flatBox}
            aria-label="Flat run"
            className={`${BAND} ${ground.weave} ${ground.night ? "text-white" : ""}`}
            style={ground.style}
          >
            {laid.flat && laid.header && <FlatRun scene={laid.flat} header={laid.header} />}
          </section>
          <div className="flex min-h-0 flex-1">
            <section aria-label="Trial lines" className="flex min-w-0 flex-1 flex-col px-4 pt-2 pb-3 [contain:strict]">
              <Trials />
            </section>
            <section
              aria-label="This brush, in words"
              className="w-[452px] shrink-0 [contain:strict] overflow-y-auto border-l border-rule px-4 pt-2 pb-3"
            >
              <Refused />
              <Words />
            </section>
          </div>
        </div>
      </LaidBenchContext>
    </OpenBenchContext>
  );
}

function Keys() {
  useBenchKeys();
  return null;
}

/** Why the settings of now could not be laid. */
function Refused() {
  const { refusal } = useLaidBench();
  if (!refusal) return null;
  return (
    <p role="alert" className="mb-2 border border-madder bg-madder-wash px-3 py-1.5">
      {refusal[0].toUpperCase() + refusal.slice(1)}. The last good picture stays.
    </p>
  );
}
