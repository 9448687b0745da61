import { press } from "./keys";

const LETTERS = "asdfghjklertyuiopzxcvbnmw"; // those under the fingers first; q leads here
const OPERABLE = 'button, a[href], input, textarea, select, [role="slider"], [role="button"]';
const TYPED = 'input:not([type="checkbox"]):not([type="file"]), textarea, select, [role="slider"]';

/** Codes for so many things: a letter each, or two where they are more than the letters. */
export function codesFor(count: number): string[] {
  const all = [...LETTERS];
  if (count <= all.length) return all.slice(0, count);
  return all.flatMap((first) => all.map((second) => first + second)).slice(0, count);
}

/** What can be operated on the screen: all that is enabled and nothing lies over. */
export function operable(): (HTMLElement | SVGElement)[] {
  const dialog = [...document.querySelectorAll('[role="dialog"], [role="menu"], [role="listbox"]')].at(-1);
  const within = dialog ?? document;
  return [...within.querySelectorAll<HTMLElement | SVGElement>(OPERABLE)].filter((each) => {
    if (each.matches(":disabled, [aria-hidden=true]")) return false;
    const { x, y, width, height } = each.getBoundingClientRect();
    const on = width && height ? document.elementFromPoint(x + width / 2, y + height / 2) : null;
    return on !== null && (each.contains(on) || on.contains(each));
  });
}

/** Press what is pressed; give the focus to what is typed into, stepped or dragged. */
export function operate(what: HTMLElement | SVGElement): void {
  if (what instanceof HTMLElement && !what.matches(TYPED)) return press(what);
  what.focus();
  if (what instanceof HTMLInputElement) what.select();
}
