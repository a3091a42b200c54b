import { useEffect } from "react";

/** Whether a key belongs to a field that is being filled. */
export const inField = (event: KeyboardEvent): boolean =>
  event.target instanceof HTMLElement &&
  event.target.closest("input:not([type=radio]), textarea, select, dialog") !== null;

/** Keys of a page, each with what it does; none while a field is being filled or another key is held down. */
export function useKeys(keys: Readonly<Record<string, (() => void) | undefined>>): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const act = keys[event.key];
      if (!act || inField(event) || event.ctrlKey || event.altKey || event.metaKey) return;
      event.preventDefault();
      act();
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  });
}
