import { NOT_KNOWN } from "./upcast";
import { gather, type Names } from "../shape";
import { CATALOGUE } from "./catalogue";
import { wearKind } from "./wear-of";
import { book as shape, type Book } from "./book";

const known = new WeakMap<Book, Names>();

/**
 * Everything a book names, by what it is: parts, steps, chains, depths. Besides its own ids the names that bolts go by on a bench: `bolts:` with
 * their group, and with the length of some of them in nanometres.
 */
export function namesOfBook(book: Book): Names {
  const found = known.get(book);
  if (found) return found;
  const names = new Map(gather(shape, book).named);
  const bolts = (book.fasteners ?? []).flatMap(({ id, length, places }) => {
    const lengths = new Set(places.map((place) => place.length ?? length));
    return [boltsOf(id), ...[...lengths].flatMap((one) => (one === undefined ? [] : boltsOf(id, one)))];
  });
  names.set("bolts", new Map(bolts.map((name) => [name, "fasteners"])));
  for (const [thing, ids] of CATALOGUE) names.set(thing, new Map([...(names.get(thing) ?? []), ...ids]));
  known.set(book, names);
  return names;
}

/** What the bolts of a group are called where they lie and are counted; those of one length where a group has several. */
export const boltsOf = (group: string, length?: number): string =>
  length === undefined ? `bolts:${group}` : `bolts:${group}:${length}`;

const called = new WeakMap<Book, ReadonlyMap<string, string>>();

/** What a part is called; its id where the book has none of it. A figure of a part may bear the same id: where a part is meant, it is asked for here. */
export const partNameIn = ({ parts }: Pick<Book, "parts">, id: string): string =>
  parts.find((part) => part.id === id)?.name ?? id;

/** What a thing of the book is called, by its id; the id in words where the book has no name for it. */
export function nameIn(book: Book, id: string): string {
  const known = called.get(book) ?? namesById(book);
  called.set(book, known);
  return known.get(id) ?? wearKind(book, id).name;
}

function namesById(book: Book): Map<string, string> {
  const { parts, chains, packs, stations, traits, series, seats = [] } = book;
  const {
    measurements = [],
    weakPoints = [],
    stronger = [],
    teardown = [],
    build = [],
    fasteners = [],
    procedures = [],
    relearns = [],
    proofs = [],
    tips = [],
    tools = [],
    pictures = [],
  } = book;
  const named = [
    ...[...parts, ...chains, ...seats, ...stations, ...traits, ...series],
    ...[...measurements, ...weakPoints, ...stronger, ...teardown, ...build],
    ...[...procedures, ...relearns, ...tools, ...pictures],
  ];
  const bolts = fasteners.flatMap(({ id, name }) => [
    { id, name },
    { id: boltsOf(id), name },
  ]);
  const answers = weakPoints.flatMap((point) => point.answers);
  const records = [...teardown, ...build].flatMap(({ record = [] }) =>
    record.map(({ id, what }) => ({ id, name: what })),
  );
  const seen = proofs.map(({ id, what }) => ({ id, name: what }));
  const said = tips.map(({ id, text }) => ({ id, name: text }));
  const fluids = book.fluid?.others ?? [];
  const elements = packs.map(({ element, name }) => ({ id: element, name }));
  return new Map(
    [...answers, ...records, ...seen, ...said, ...fluids, ...bolts, ...elements, ...named].map(
      ({ id, name }) => [id, name],
    ),
  );
}

/** What a unit is called: by its maker’s name too, where anybody knows that. */
export const unitName = ({ maker, name }: { maker?: string | null; name: string }): string =>
  maker && maker !== NOT_KNOWN.maker ? `${maker} ${name}` : name;
