/** What was typed into a draft and not saved yet, kept on this machine over a reload or a crash. */
export interface Unsaved {
  /** The save it was typed on top of. */
  version: number;
  text: string;
}

const keyOf = (draft: string): string => `yard-key draft ${draft}`;

export function readUnsaved(draft: string, store: Storage = localStorage): Unsaved | null {
  try {
    const kept: unknown = JSON.parse(store.getItem(keyOf(draft)) ?? "null");
    if (typeof kept !== "object" || kept === null) return null;
    const { version, text } = kept as Partial<Unsaved>;
    if (typeof version !== "number" || typeof text !== "string") return null;
    // Text that is no document would be of no use: it was never one that could be saved.
    JSON.parse(text);
    return { version, text };
  } catch {
    return null;
  }
}

export function keepUnsaved(draft: string, unsaved: Unsaved, store: Storage = localStorage): void {
  try {
    store.setItem(keyOf(draft), JSON.stringify(unsaved));
  } catch {
    // A full store must not stop the typing; what can be lost then is only what is not saved yet.
  }
}

export const dropUnsaved = (draft: string, store: Storage = localStorage): void =>
  store.removeItem(keyOf(draft));
