import { isRecord } from "../shape";
import { difference, differenceText, keyed, nameOf, wordOf } from "./difference";

/** One entry of a book that another shop's book of the same unit says otherwise, or that one of the two has alone. */
export interface Offer {
  section: string;
  /** Of an entry of a list; empty where the section is one thing. */
  key: string;
  name: string;
  is: "added" | "changed";
  /** What is otherwise, in the trade's words: from ours to theirs. */
  lines: string[];
}

type Document = Readonly<Record<string, unknown>>;

/** What is a unit's name, and not what is known of it: it is nobody's to take over. */
const OWN = new Set(["format", "unit"]);
/** They come with what shows them. */
const PICTURES = "pictures";

/** Whether two documents are of one unit: figures of different units never mix. */
export const isSameUnit = (own: unknown, other: unknown): boolean => {
  const id = (document: unknown): unknown =>
    isRecord(document) && isRecord(document.unit) ? document.unit.id : undefined;
  return id(own) !== undefined && id(own) === id(other);
};

/**
 * What another shop's book of the same unit has that ours has not, or says otherwise, entry by entry. What only ours has stays, and is not told.
 *
 * @returns none where they are of different units.
 */
export function offersOf(own: unknown, other: unknown): Offer[] {
  if (!isRecord(own) || !isRecord(other) || !isSameUnit(own, other)) return [];
  return Object.keys(other)
    .filter((section) => !OWN.has(section) && section !== PICTURES)
    .flatMap((section): Offer[] => {
      const [ours, theirs] = [own[section], other[section]];
      if (!isList(theirs)) return whole(section, ours, theirs);
      const known = keyed(isList(ours) ? ours : []);
      return [...keyed(theirs)].flatMap(([key, entry]): Offer[] => {
        const before = known.get(key);
        if (JSON.stringify(before) === JSON.stringify(entry)) return [];
        const lines = difference(
          { [section]: before === undefined ? [] : [before] },
          { [section]: [entry] },
        ).map(differenceText);
        return [
          {
            section,
            key,
            name: nameOf(entry, section),
            is: before === undefined ? "added" : "changed",
            lines,
          },
        ];
      });
    });
}

function whole(section: string, ours: unknown, theirs: unknown): Offer[] {
  if (JSON.stringify(ours) === JSON.stringify(theirs)) return [];
  const lines = difference({ [section]: ours }, { [section]: theirs }).map(differenceText);
  return [{ section, key: "", name: wordOf(section), is: ours === undefined ? "added" : "changed", lines }];
}

const isList = (value: unknown): value is unknown[] => Array.isArray(value);

/**
 * Ours with what was picked of theirs: an entry that is there is replaced in its place, one that is not is added at the end.
 *
 * @param picked of `offersOf` the same two.
 */
export function takeOver(
  own: Document,
  other: Document,
  picked: readonly Pick<Offer, "section" | "key">[],
): Document {
  const next: Record<string, unknown> = { ...own };
  for (const { section, key } of picked) {
    const [ours, theirs] = [next[section], other[section]];
    if (!isList(theirs)) {
      next[section] = theirs;
      continue;
    }
    const entry = keyed(theirs).get(key);
    if (entry === undefined) continue;
    const known = keyed(isList(ours) ? ours : []);
    next[section] = known.has(key)
      ? [...known].map(([one, before]) => (one === key ? entry : before))
      : [...known.values(), entry];
  }
  const pictures = picturesFor(next, other);
  return pictures.length > 0 ? { ...next, [PICTURES]: pictures } : next;
}

/** Our pictures, with those of theirs that what was taken over shows. */
function picturesFor(next: Document, other: Document): unknown[] {
  const [ours, theirs] = [next[PICTURES], other[PICTURES]].map((list) =>
    (isList(list) ? list : []).filter(isRecord),
  );
  const shown = new Set(
    Object.entries(next)
      .filter(([section]) => section !== PICTURES)
      .flatMap(([, list]) => (isList(list) ? list : []))
      .flatMap((entry) => (isRecord(entry) && typeof entry.picture === "string" ? [entry.picture] : [])),
  );
  const missing = (theirs ?? []).filter(
    ({ id }) => shown.has(String(id)) && !(ours ?? []).some((one) => one.id === id),
  );
  return [...(ours ?? []), ...missing];
}
