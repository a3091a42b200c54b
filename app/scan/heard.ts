/** What a page does with a scanned label itself; returns whether it did. */
type Listener = (code: string) => boolean;
const listeners = new Set<Listener>();

/** Lets a page take scanned labels before they open what they belong to; the answer ends it. */
export function onScan(listener: Listener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** @returns whether the page in view took the label. */
export const heard = (code: string): boolean => [...listeners].some((listener) => listener(code));
