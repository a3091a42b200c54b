import { useEffect, useRef } from "react";

/**
 * Empties a secret that proved nothing, once for each answer: what is typed next is the next try, and not added to the last.
 *
 * @param answer what the door said; another one for each try.
 */
export function useRefused(answer: unknown, isRefused: boolean, empty: () => void): void {
  const last = useRef({ isRefused, empty });
  useEffect(() => {
    last.current = { isRefused, empty };
  });
  useEffect(() => {
    if (last.current.isRefused) last.current.empty();
  }, [answer]);
}

/** Empties one field of a form. */
export function emptied(form: HTMLFormElement | null, name: string): void {
  const field = form?.elements.namedItem(name);
  if (field instanceof HTMLInputElement) field.value = "";
}
