import { isRecord } from "../shape";

type Entry = Readonly<Record<string, unknown>>;

const NOTHING: Entry = {};
/** The entries, in their places: what is none stands as an empty one. */
const picturesOf = (document: unknown): Entry[] | null =>
  isRecord(document) && Array.isArray(document.pictures)
    ? (document.pictures as unknown[]).map((one) => (isRecord(one) ? one : NOTHING))
    : null;

/** The bytes of one picture as a shared file carries them. */
export interface PictureData {
  /** Where it stands in the document. */
  path: string;
  digest: string;
  /** Base64. */
  data: string;
}

/**
 * A book’s document without the bytes of its pictures, which are kept by themselves, and those bytes.
 *
 * @param document as it came: with bytes where it is a shared file.
 */
export function withoutPictureData(document: unknown): { document: unknown; pictures: PictureData[] } {
  const all = picturesOf(document);
  if (!all || !isRecord(document)) return { document, pictures: [] };
  const pictures = all.flatMap(({ digest, data }, i) =>
    typeof digest === "string" && typeof data === "string" ? [{ path: `pictures[${i}]`, digest, data }] : [],
  );
  if (pictures.length === 0) return { document, pictures };
  const bare = (document.pictures as unknown[]).map((one) =>
    isRecord(one) && typeof one.data === "string"
      ? Object.fromEntries(Object.entries(one).filter(([key]) => key !== "data"))
      : one,
  );
  return { document: { ...document, pictures: bare }, pictures };
}

/** The digests of a document’s pictures, each once. */
export const pictureDigests = (document: unknown): string[] => [
  ...new Set(
    (picturesOf(document) ?? []).flatMap(({ digest }) => (typeof digest === "string" ? [digest] : [])),
  ),
];

/** A document as the file that is shared: with the bytes of the pictures that are here. */
export function withPictureData(document: unknown, dataOf: ReadonlyMap<string, string>): unknown {
  const all = picturesOf(document);
  if (!all || !isRecord(document)) return document;
  return {
    ...document,
    pictures: (document.pictures as unknown[]).map((one) => {
      const data = isRecord(one) ? dataOf.get(String(one.digest)) : undefined;
      return data === undefined ? one : { ...(one as Entry), data };
    }),
  };
}

/** A book’s picture as it is drawn under a face. */
export interface ShownPicture {
  name: string;
  digest: string;
  /** Height by width. */
  ratio: number;
}

/** One of a book’s pictures; null where it names none. */
export function pictureIn(
  {
    pictures = [],
  }: { pictures?: readonly { id: string; name: string; digest: string; width: number; height: number }[] },
  id: string | undefined,
): ShownPicture | null {
  const found = id === undefined ? undefined : pictures.find((one) => one.id === id);
  return found ? { name: found.name, digest: found.digest, ratio: found.height / found.width } : null;
}
