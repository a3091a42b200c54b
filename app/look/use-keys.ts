import { useEffect } from "react";
import { FAST_MS } from "~/scan/wedge";

/** Whether a key belongs to a field that is being filled. */
export const inField = (event: KeyboardEvent): boolean =>
  event.target instanceof HTMLElement &&
  event.target.closest("input:not([type=radio]), textarea, select, dialog, [contenteditable=true]") !== null;

/** Keys of one burst before they are taken for a scanner’s: two quick ones can be a hand’s. */
const SCANNED = 3;
let last = -Infinity;
let run = 0;
if (typeof document !== "undefined")
  document.addEventListener(
    "keydown",
    ({ key, timeStamp }) => {
      // Only what types something: Escape and a letter after it are a hand's.
      if (key.length !== 1) return void (run = 0);
      run = timeStamp - last <= FAST_MS ? run + 1 : 1;
      last = timeStamp;
    },
    true,
  );

/** A field that waits for a figure: a letter cannot begin one, a digit typed beside it is meant for it. */
const AWAITS = "input[data-awaits]";
/** What a figure can begin with. */
const FIGURE = /^[\d.,+\-−]$/;

/** A letter in a field that waits for a figure and is still empty is no part of one. */
const beginsNoFigure = ({ key, target }: KeyboardEvent): boolean =>
  target instanceof HTMLInputElement &&
  target.matches(AWAITS) &&
  target.value === "" &&
  /^[a-z[\]/?]$/i.test(key);

/** Whether a key is meant for the page: not for a field, not with another key, and not one of a label that a scanner types. */
export const forPage = (event: KeyboardEvent): boolean =>
  run < SCANNED &&
  // What stands over the page has the keys, also those typed on nothing in it.
  !document.querySelector("dialog:modal") &&
  (!inField(event) || beginsNoFigure(event)) &&
  !event.ctrlKey &&
  !event.altKey &&
  !event.metaKey;

/**
 * Keys of a page, each with what it does; none while a field is being filled or another key is held down.
 *
 * @param printed whether they stand on buttons in sight: those that only the key sheet tells never act from within a field.
 */
export function useKeys(
  keys: Readonly<Record<string, (() => void) | undefined>>,
  { printed = true }: { printed?: boolean } = {},
): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const act = Object.hasOwn(keys, event.key) ? keys[event.key] : undefined;
      if (!act || !forPage(event) || (!printed && inField(event))) return;
      event.preventDefault();
      act();
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  });
}

/** A figure typed on blank paper goes into the field that waits for it: the key is let through to where the focus is then. */
export function useFiguresFindTheirField(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!FIGURE.test(event.key) || !forPage(event)) return;
      const field = [...document.querySelectorAll<HTMLInputElement>(AWAITS)].find((one) =>
        one.checkVisibility(),
      );
      field?.focus();
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  }, []);
}
