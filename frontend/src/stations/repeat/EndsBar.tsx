import { Slider } from "radix-ui";
import { useEarlyMoves } from "../../shared/ui/useEarlyMoves";

interface Props {
  label: string;
  /** The two values in the order in which the source goes, which may fall. */
  value: [number, number];
  from: number;
  to: number;
  step: number;
  onDrag: (value: [number, number]) => void;
  onSet: (value: [number, number]) => void;
}

/** A bar with two ends to drag: arrows move the one that has the focus, with Shift by ten. */
export function EndsBar({ label, value, from, to, step, onDrag, onSet }: Props) {
  const falls = value[0] > value[1];
  const rising = falls ? [value[1], value[0]] : value;
  const early = useEarlyMoves();
  const back = ([low, high]: number[]): [number, number] => (falls ? [high, low] : [low, high]);
  return (
    <Slider.Root
      {...early}
      className="relative flex h-6 min-w-0 flex-1 touch-none items-center select-none"
      min={Math.min(from, rising[0])}
      max={Math.max(to, rising[1])}
      step={step}
      value={rising}
      onValueChange={(next) => onDrag(back(next))}
      onValueCommit={(next) => onSet(back(next))}
    >
      <Slider.Track className="relative h-[3px] grow bg-rule">
        <Slider.Range className="absolute h-full bg-madder" />
      </Slider.Track>
      {["least", "most"].map((end) => (
        <Slider.Thumb
          key={end}
          aria-label={`${label}, ${end}`}
          className="block h-[14px] w-[7px] border-[1.5px] border-loden bg-work"
        />
      ))}
    </Slider.Root>
  );
}
