import type { Share, Together } from "~core/measure";
import type { Reserve } from "~store/shelf";

/** Said where what was proposed is not what can be had any more. */
export const QUICKER = "Somebody else was quicker, or there are new readings: this is what is proposed now.";

/** A piece proposed for a seat, by the key it is offered under. */
export interface Pick {
  seat: string;
  key: string;
}

/** What a plan takes from the shelf for the seats that a person chooses for, as it is sent, a line for each: what stays or is to be ordered is not. */
export const planText = (asked: Together, { seats }: Share): string =>
  seats
    .flatMap(({ seat, offer, kept }) => {
      const offered = offer && !kept && asked.seats.has(seat) ? asked.offers.get(offer.id) : undefined;
      return offered && offered.piece.part !== undefined && offered.source.kind !== "order"
        ? [`${seat}=${offered.key}`]
        : [];
    })
    .join("\n");

/** The lines of `planText`, read back. */
export const picksIn = (text: string): Pick[] =>
  text.split("\n").flatMap((line) => {
    const at = line.indexOf("=");
    const [seat, key] = [line.slice(0, Math.max(0, at)), line.slice(at + 1)];
    return seat && key ? [{ seat, key }] : [];
  });

/** What is to be reserved for these picks; null where one of them is not offered any more. */
export function wantedBy(asked: Together, job: string, picks: readonly Pick[]): Reserve[] | null {
  const wanted: Reserve[] = [];
  for (const { seat, key } of picks) {
    const own = asked.question.seats.find(({ id }) => id === seat)?.offers ?? [];
    const offered = own.flatMap(({ id }) => asked.offers.get(id) ?? []).find((one) => one.key === key);
    if (!offered) return null;
    const { piece, source } = offered;
    if (piece.part === undefined || source.kind === "order") continue;
    wanted.push({ job, seat, part: piece.part, ...pieceOf(source) });
  }
  return wanted;
}

const pieceOf = (source: { kind: string; pieceId?: string }): { piece?: string } =>
  source.pieceId === undefined ? {} : { piece: source.pieceId };
