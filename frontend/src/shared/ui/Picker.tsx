import { DropdownMenu } from "radix-ui";
import { Menu } from "./Panel";

const ITEM =
  "flex cursor-pointer items-center gap-2 px-3 py-1 outline-none " +
  "data-[highlighted]:bg-indigo-wash data-[state=checked]:font-bold";

interface Props {
  label: string;
  options: { id: number; name: string }[];
  /** Null shows the placeholder: nothing is chosen, choosing starts something. */
  value: number | null;
  placeholder?: string;
  onSet: (id: number) => void;
  /** A picture beside each name. */
  picture?: (id: number) => React.ReactNode;
}

/** Pick one of many by name. Not modal, so that it needs no inline style sheet. */
export function Picker({ label, options, value, placeholder, onSet, picture }: Props) {
  const chosen = options.find((o) => o.id === value);
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        aria-label={`${label}: ${chosen?.name ?? placeholder ?? ""}`}
        className="flex min-w-0 items-center gap-2 border-b-[1.5px] border-loden font-semibold"
      >
        <span className="truncate">{chosen?.name ?? placeholder}</span>
        <span aria-hidden className="text-[10px] text-moss">
          ▼
        </span>
      </DropdownMenu.Trigger>
      <Menu align="start" className="max-h-[360px]">
        <DropdownMenu.RadioGroup value={String(value)} onValueChange={(id) => onSet(Number(id))}>
          {options.map((option) => (
            <DropdownMenu.RadioItem key={option.id} value={String(option.id)} className={ITEM}>
              {picture?.(option.id)}
              {option.name}
            </DropdownMenu.RadioItem>
          ))}
        </DropdownMenu.RadioGroup>
      </Menu>
    </DropdownMenu.Root>
  );
}
