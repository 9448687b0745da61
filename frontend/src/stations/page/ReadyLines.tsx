import { Popover } from "radix-ui";
import { stepThrough, takeFocus } from "../../shared/ui/keys";
import { Panel } from "../../shared/ui/Panel";
import { useLaidPage } from "./laidPage";
import { useLineHands } from "./useLineHands";
import { useReadyLines } from "./useReadyLines";

const COLUMNS = 4;

/** Lines that are ready to be laid: pressed, one lies in the middle of the page and its figures are live. */
export function ReadyLines({ open, onOpen }: { open: boolean; onOpen: (open: boolean) => void }) {
  const { page, lines, brushId } = useLaidPage();
  const { draw } = useLineHands();
  const size = `${page.width_mm} ${page.height_mm}`;
  const { data } = useReadyLines(page, open);
  return (
    <Popover.Root open={open} onOpenChange={onOpen}>
      <Popover.Trigger
        disabled={!brushId}
        className="border-b-2 border-loden pb-px font-semibold aria-expanded:border-madder disabled:text-moss"
      >
        Ready
      </Popover.Trigger>
      <Panel
        align="end"
        aria-label="Ready lines"
        className="w-[330px] p-3"
        onOpenAutoFocus={(event) => event.preventDefault()} // the first line has it as soon as it is there
      >
        <ul className="grid grid-cols-4 gap-1.5" onKeyDown={(event) => stepThrough(event, COLUMNS)}>
          {data?.ready.map(({ shape, name, figures, path }, i) => (
            <li key={shape}>
              <button
                ref={i ? undefined : takeFocus}
                className="block w-full border border-rule p-1 text-[12.5px] hover:border-loden"
                onClick={() => {
                  const at = [page.width_mm / 2, page.height_mm / 2];
                  const own = Object.fromEntries(figures.map((figure) => [figure.name, figure.value]));
                  draw({ kind: "ready", shape, figures: own, at, turn_deg: 0 }, `${name} ${lines.length + 1}`);
                  onOpen(false);
                }}
              >
                <svg viewBox={`0 0 ${size}`} aria-hidden className="mx-auto block h-[46px] w-[62px]">
                  <path d={path} fill="none" stroke="var(--color-madder)" strokeWidth="1.6" vectorEffect="non-scaling-stroke" />
                </svg>
                {name}
              </button>
            </li>
          ))}
        </ul>
        <p className="mt-2 text-[12px] text-moss">It lies in the middle of the page; its figures stay live below.</p>
      </Panel>
    </Popover.Root>
  );
}
