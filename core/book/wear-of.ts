import type { Book } from "./book";
import { LOOKS, REASONS, WEAR, type Look, type Reason, type WearKind } from "./catalogue";

type Named = Pick<Book, "wears" | "reasons">;
/** A kind of wear that a book adds to the catalogue or words anew. */
export type OwnWear = NonNullable<Book["wears"]>[number];

/** What a kind of wear is: the book's own word first, then the catalogue's. */
export interface KnownWear extends Omit<WearKind, "look"> {
  id: string;
  look: Look;
  /** The kind of the catalogue that rules go by. */
  as: string;
}

/**
 * @param id of the catalogue or of the book's `wears`.
 * @returns a plain kind under its own id where neither knows it.
 */
export function wearKind({ wears = [] }: Named, id: string): KnownWear {
  const own = wears.find((one) => one.id === id);
  const as = own?.like ?? id;
  const known: WearKind | undefined = Object.hasOwn(WEAR, as) ? WEAR[as as keyof typeof WEAR] : undefined;
  const look = LOOKS[own?.look ?? known?.look ?? "other"];
  const name = own?.name ?? known?.name ?? id.replaceAll("-", " ");
  const breaks = own?.breaks ?? known?.breaks;
  const cleans = own?.cleans ?? known?.cleans;
  return { id, as, name, look, ...(breaks ? { breaks: true } : {}), ...(cleans ? { cleans: true } : {}) };
}

/** Why a part is replaced on principle, by the id its book gives. */
export function reasonOf({ reasons = [] }: Named, id: string): Reason {
  const own = reasons.find((one) => one.id === id);
  const known: Reason | undefined = Object.hasOwn(REASONS, id)
    ? REASONS[id as keyof typeof REASONS]
    : undefined;
  return own ?? known ?? { words: id.replaceAll("-", " ") };
}
