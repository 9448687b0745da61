import { Select } from "radix-ui";

interface Props {
  label: string;
  options: { id: number; name: string }[];
  /** Null shows the placeholder: nothing is chosen, choosing starts something. */
  value: number | null;
  placeholder?: string;
  onSet: (id: number) => void;
}

/** Pick one of many by name. */
export function Picker({ label, options, value, placeholder, onSet }: Props) {
  return (
    <Select.Root value={value === null ? "" : String(value)} onValueChange={(id) => id && onSet(Number(id))}>
      <Select.Trigger aria-label={label} className="flex min-w-0 items-center gap-2 border-b-[1.5px] border-loden font-semibold">
        <Select.Value placeholder={placeholder} />
        <Select.Icon className="text-[10px] text-moss">▼</Select.Icon>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content position="popper" sideOffset={4} className="z-30 max-h-[360px] border border-rule bg-work shadow-sm">
          <Select.Viewport className="p-1">
            {options.map((option) => (
              <Select.Item key={option.id} value={String(option.id)} className="px-3 py-1 outline-none data-[highlighted]:bg-indigo-wash data-[state=checked]:font-bold">
                <Select.ItemText>{option.name}</Select.ItemText>
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}
