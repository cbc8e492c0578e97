import { type HotkeyItem, useHotkeys } from "@mantine/hooks";

const TYPED = new Set(["button", "checkbox", "color", "file", "radio", "range", "reset", "submit"]);

/** Whether keys are letters here: in a field that is typed into, not on a choice or a tick. */
export const isTypedInto = (target: EventTarget | null) =>
  target instanceof HTMLTextAreaElement ||
  (target instanceof HTMLInputElement && !TYPED.has(target.type)) ||
  (target instanceof HTMLElement && target.isContentEditable);

/** Keys of a screen, wherever the focus is except in a field that is typed into. */
export function useKeys(keys: [string, () => void][]) {
  const items = keys.map(([key, act]): HotkeyItem => {
    const heard = (e: KeyboardEvent) => {
      if (isTypedInto(e.target)) return;
      e.preventDefault();
      act();
    };
    return [key, heard, { preventDefault: false }];
  });
  useHotkeys(items, []);
}

/** Escape leaves a field, so that keys are heard again. */
export function leaveField(e: { key: string; target: EventTarget }) {
  if (e.key === "Escape" && isTypedInto(e.target)) (e.target as HTMLElement).blur();
}
