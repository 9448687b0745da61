import { DropdownMenu, Popover } from "radix-ui";
import { keepNewFocus } from "./keys";

const LOOK = "z-30 border border-rule bg-work shadow-sm";

/** A panel beside what opens it. */
export function Panel({ className, ...rest }: Popover.PopoverContentProps & { "aria-label": string }) {
  return (
    <Popover.Portal>
      <Popover.Content sideOffset={6} className={`${LOOK} ${className ?? ""}`} onCloseAutoFocus={keepNewFocus} {...rest} />
    </Popover.Portal>
  );
}

/** A menu below what opens it. */
export function Menu({ className, ...rest }: DropdownMenu.DropdownMenuContentProps) {
  const look = `${LOOK} overflow-y-auto p-1 ${className ?? ""}`;
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content sideOffset={4} className={look} onCloseAutoFocus={keepNewFocus} {...rest} />
    </DropdownMenu.Portal>
  );
}
