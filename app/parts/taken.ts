import { takenOf, type Cover, type Taken } from "~core/kit";

/** A way to cover a list as a form sends it: a line for each take. */
export const takenText = (cover: Pick<Cover, "takes">): string =>
  takenOf(cover)
    .map(({ number, supplier, packs, pieces }) => [packs, pieces, number, supplier ?? ""].join("\t"))
    .join("\n");

/** The same read again. */
export function takenFrom(text: string): Taken[] {
  return text.split(/\r?\n/).map((line) => {
    const [packs, pieces, number = "", supplier = ""] = line.split("\t");
    const counts = [Number(packs), Number(pieces)];
    if (number === "" || counts.some((count) => !Number.isInteger(count) || count < 1))
      throw new RangeError("no way to cover a list");
    return {
      number,
      supplier: supplier === "" ? null : supplier,
      packs: Number(packs),
      pieces: Number(pieces),
    };
  });
}
