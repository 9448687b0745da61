import { NumberField } from "../../shared/ui/NumberField";

interface FigureProps {
  label: string;
  unit: string;
  step: number;
  value: number;
  standard?: number;
  least?: number;
  most?: number;
  give: (value: number) => void;
}

/** A figure shown whole, the same while it is dragged and once it is set, kept within what it may be. */
export function Figure({ least = 0, most = Infinity, give, ...field }: FigureProps) {
  const within = (value: number): void => give(Math.max(least, Math.min(most, value)));
  return <NumberField {...field} decimals={0} onDrag={within} onSet={within} />;
}
