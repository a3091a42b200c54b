/**
 * A round over a face: parts of the torque, all of it, the angle after it, one lap over every place, and again once the gasket has crept; or, of
 * fasteners nobody undid, each held against its torque.
 */
export interface Round {
  /** As facts name it: `part-1`, `part-2` …, `full`, `angle`, `lap`, `again`, `verify`. */
  id: string;
  kind: "part" | "full" | "angle" | "lap" | "again" | "verify";
  /** Which of the parts, from 0. */
  part: number;
}

/** What decides the rounds of a face. */
export interface FaceOf {
  places: number;
  parts: number;
  angle: boolean;
  again: boolean;
}

/** @returns the rounds in their order; a single place wants no lap. */
export function roundsOf({ places, parts, angle, again }: FaceOf): Round[] {
  const one = (kind: Round["kind"]): Round => ({ id: kind, kind, part: 0 });
  return [
    ...Array.from({ length: parts }, (_, part): Round => ({ id: `part-${part + 1}`, kind: "part", part })),
    one("full"),
    ...(angle ? [one("angle")] : []),
    ...(places > 1 && !angle ? [one("lap")] : []),
    ...(again ? [one("again")] : []),
  ];
}

/** The one round over a face that was not undone. */
export const VERIFY: Round = { id: "verify", kind: "verify", part: 0 };

/** How far a face is. */
export interface Session {
  /** Round → the places still to come in it, in the order they are tightened. */
  left: ReadonlyMap<string, readonly number[]>;
  /** The round that is worked on: the first with a place left; null once all are through. */
  round: Round | null;
  /** The place that is next in it. */
  next: number | null;
}

/**
 * How far a face is, whatever order its places were touched in: a round is through when every place was tightened in it, or said not to be reached.
 *
 * @param order the places as they are tightened.
 * @param isDone whether a place was answered for in a round.
 */
export function sessionOf(
  rounds: readonly Round[],
  order: readonly number[],
  isDone: (round: string, place: number) => boolean,
): Session {
  const left = new Map(rounds.map(({ id }) => [id, order.filter((place) => !isDone(id, place))]));
  const round = rounds.find(({ id }) => (left.get(id)?.length ?? 0) > 0) ?? null;
  return { left, round, next: round ? (left.get(round.id)?.[0] ?? null) : null };
}
