import { Select } from "radix-ui";
import type { Workshop } from "../../shared/api/client";

interface Props {
  label: string;
  workshop: Workshop;
  value: number;
  onSet: (id: number) => void;
}

export function BrushPicker({ label, workshop, value, onSet }: Props) {
  return (
    <Select.Root value={String(value)} onValueChange={(id) => onSet(Number(id))}>
      <Select.Trigger aria-label={label} className="flex min-w-0 items-center gap-2 border-b-[1.5px] border-loden font-semibold">
        <Select.Value />
        <Select.Icon className="text-[10px] text-moss">▼</Select.Icon>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content position="popper" sideOffset={4} className="z-30 max-h-[360px] border border-rule bg-work shadow-sm">
          <Select.Viewport className="p-1">
            {workshop.brushes.map((brush) => (
              <Select.Item key={brush.id} value={String(brush.id)} className="px-3 py-1 outline-none data-[highlighted]:bg-indigo-wash data-[state=checked]:font-bold">
                <Select.ItemText>{brush.name}</Select.ItemText>
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}
