import { useEffect, useRef, type RefObject } from "react";

/** The next step begins at its head, also for whoever had scrolled down the last one: what is shown changed, and its panel comes into view. */
export function useHead<T extends HTMLElement>(shown: string | undefined): RefObject<T | null> {
  const panel = useRef<T>(null);
  const before = useRef(shown);
  useEffect(() => {
    if (before.current !== shown && window.scrollY > 0) panel.current?.scrollIntoView();
    before.current = shown;
  }, [shown]);
  return panel;
}
