import { nextFrame } from "~/look/next-frame";
import { exactLength, type LengthUnit, type Nm } from "~core/quantity";

/** What a gauge says: a length, or the blades of a feeler, the thickest that passes and the thinnest that does not. */
export type Told = { value: Nm } | { passes: Nm | null; refuses: Nm | null };

/** What a reading is wanted of, for a gauge that has to know: only the simulated one does. */
export interface Wanted {
  /** Tells one drum, pinion or bore from another. */
  what: string;
  gauge: string;
  nominal: Nm;
}

/** Where readings come from. What they are of is the page’s business: the field in hand. */
export interface Source {
  name: string;
  /** Begins to listen; the answer ends it. Rejects with words that say what to do. */
  open: (hear: (told: Told) => void, lost: (why: string) => void) => Promise<() => Promise<void>>;
  /** Asks for one reading, of a gauge that does not send by itself. */
  ask?: (wanted: Wanted) => Promise<Told>;
}

/**
 * A reading as one would type it: `0.425`, `0.40/0.45`. What cannot be written exactly in the unit in view is typed in the other: a reading never
 * changes by where it is put.
 */
export function toldText(told: Told, unit: LengthUnit): string {
  const plain = (length: Nm | null): string => {
    if (length === null) return "";
    const shown = exactLength(length, unit);
    return shown.unit === unit ? shown.figure : `${shown.figure} ${shown.unit}`;
  };
  return "value" in told ? plain(told.value) : `${plain(told.passes)}/${plain(told.refuses)}`;
}

/**
 * Puts a text into a field as typing does, and Enter after it: every field that can be typed into can be fed by a gauge. Where nobody hears
 * Enter it sends the field’s form, as a browser does of itself when a person presses it.
 */
export function typeInto(field: HTMLInputElement, text: string): void {
  field.focus();
  // React hears of a change only through the field’s own setter.
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(field, text);
  field.dispatchEvent(new Event("input", { bubbles: true }));
  // The page draws what was typed before it hears Enter.
  nextFrame(() => {
    const enter = new KeyboardEvent("keydown", { key: "Enter", bubbles: true, cancelable: true });
    if (field.dispatchEvent(enter)) field.form?.requestSubmit();
  });
}
