import { useQueries } from "@tanstack/react-query";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { api, kept } from "../../shared/api/client";
import { useBench } from "./bench";
import { useLaidBench, useOpenBench } from "./openBench";
import { MOST_PINNED } from "./pins";
import { Menu } from "../../shared/ui/Panel";

/** Pin lines of one's own pages beside the standing trial lines. */
export function PinMenu() {
  const { pages } = useOpenBench().workshop;
  const { present: pinned } = useLaidBench();
  const pin = useBench((bench) => bench.pin);
  const [open, setOpen] = useState(false);
  const found = useQueries({
    queries: pages.map((page) => ({
      queryKey: ["page-lines", page.id, page.version],
      queryFn: () => kept(api.GET("/api/pages/{id}", { params: { path: { id: page.id } } })),
      enabled: open,
    })),
  });
  const groups = pages.map((page, i) => ({ page, lines: found[i].data?.lines ?? [] })).filter((g) => g.lines.length);
  const toggle = (id: number): void =>
    pin(pinned.includes(id) ? pinned.filter((p) => p !== id) : [...pinned, id].slice(-MOST_PINNED));
  return (
    <DropdownMenu.Root modal={false} open={open} onOpenChange={setOpen}>
      <DropdownMenu.Trigger className="plain-button px-1.5 py-0">
        {pinned.length ? `Pinned: ${pinned.length}` : "Pin a line"}
      </DropdownMenu.Trigger>
      <Menu align="end" className="max-h-[320px] max-w-[300px]">
        {!groups.length && (
          <p className="px-3 py-1">
            {found.some((f) => f.isLoading) ? "Looking at your pages…" : "No lines yet: draw one at Page, then pin it here."}
          </p>
        )}
        {groups.map(({ page, lines }) => (
          <DropdownMenu.Group key={page.id}>
            <DropdownMenu.Label className="px-3 pt-1 text-[12px] text-moss">{page.name}</DropdownMenu.Label>
            {lines.map((line) => (
              <DropdownMenu.CheckboxItem
                key={line.id}
                checked={pinned.includes(line.id)}
                onCheckedChange={() => toggle(line.id)}
                onSelect={(event) => event.preventDefault()}
                className="cursor-pointer px-3 py-1 outline-none data-[highlighted]:bg-indigo-wash data-[state=checked]:font-bold"
              >
                {pinned.includes(line.id) ? "✓ " : ""}
                {line.name}
              </DropdownMenu.CheckboxItem>
            ))}
          </DropdownMenu.Group>
        ))}
      </Menu>
    </DropdownMenu.Root>
  );
}
