import { houseTorque, shownIn, type FastenerGroup, type HouseValue, type UnitSystem } from "../book";
import type { FactOf, Job, PlaceDone } from "../fact";
import { baseOf, measureText, parseMeasure, toNumber, type Measure } from "../quantity";
import {
  pullVerdict,
  roundsOf,
  sessionOf,
  tighteningOrder,
  VERIFY,
  type PullVerdict,
  type Round,
  type Session,
} from "../torque";

/** @returns a time as milliseconds. */
export const millisecondsOf = (time: Measure<"time">): number => toNumber(baseOf(time)) * 1000;

/** A face of fasteners as it is tightened. */
export interface Face extends Session {
  group: FastenerGroup;
  rounds: Round[];
  /** What was said of a place in a round, while it counts. */
  said: (round: string, place: number) => FactOf<"tightened"> | null;
  /** Places a wrench does not reach, and that was said. */
  unreached: readonly number[];
  done: boolean;
  /** Nobody undid them: they are only held against their torque. */
  isUndisturbed: boolean;
  /** What was said of it last; null where nobody began. */
  last: FactOf<"tightened"> | null;
  /** Before when the round that is worked on does not count, in milliseconds: the last pass after its rest, the gasket that creeps; null where nothing is waited for. */
  until: number | null;
}

const DONE: ReadonlySet<PlaceDone> = new Set(["tight", "unreached"]);

/** The torque a round wants of each place, the house’s where it has one; null where it is an angle, or none is stated. */
export function wantedIn(
  group: FastenerGroup,
  { kind, part }: Round,
  house: readonly HouseValue[],
): Measure<"torque"> | null {
  if (kind === "part") return group.passes?.[part] ?? null;
  if (kind === "angle") return null;
  if (kind === "again") return group.retorque?.torque ?? null;
  const own = parseMeasure(houseTorque(group, house)?.torque ?? "", "torque");
  return own.ok ? own.measure : (group.torque ?? null);
}

/** How what a wrench read at a place stands; what was said without a wrench’s word, or cannot be read, stands as said. */
export function pullOf(
  group: FastenerGroup,
  round: Round,
  house: readonly HouseValue[],
  read: string | undefined,
): PullVerdict {
  const wanted = wantedIn(group, round, house);
  const parsed = read === undefined ? null : parseMeasure(read, "torque");
  return wanted && parsed?.ok ? pullVerdict(wanted, parsed.measure) : "in";
}

/**
 * How far the fasteners of a group are tightened, its torques the house’s where it has them.
 *
 * @param isUndisturbed nobody undid them: they are only held against their torque.
 */
export function faceOf(
  job: Job,
  group: FastenerGroup,
  house: readonly HouseValue[] = [],
  isUndisturbed = false,
): Face {
  const rounds = isUndisturbed
    ? [VERIFY]
    : roundsOf({
        places: group.places.length,
        parts: group.passes?.length ?? 0,
        angle: group.angle !== undefined,
        again: group.retorque !== undefined,
      });
  const order = tighteningOrder(
    group.places.map(({ at }) => at),
    group.pattern,
  );
  const said = (round: string, place: number): FactOf<"tightened"> | null =>
    job.tightened.get(`${group.id} ${round} ${place}`) ?? null;
  const byId = new Map(rounds.map((round) => [round.id, round]));
  const is = (round: string, place: number): PlaceDone => {
    const body = said(round, place)?.body;
    const of = byId.get(round);
    // What the wrench read counts, and not what was said of it.
    if (body?.did === "tight" && of && pullOf(group, of, house, body.read) !== "in") return "loose";
    return body?.did ?? "loose";
  };
  const lastIn = (those: readonly Round[], did?: PlaceDone): FactOf<"tightened"> | null =>
    those
      .flatMap(({ id }) => order.flatMap((place) => said(id, place) ?? []))
      .filter(({ body }) => did === undefined || body.did === did)
      .reduce<FactOf<"tightened"> | null>(
        (latest, one) => (latest && latest.at >= one.at ? latest : one),
        null,
      );
  const through = (those: readonly Round[]): boolean =>
    those.every(({ id }) => order.every((place) => DONE.has(is(id, place))));
  /** When those before it were through, and so long after; from when it still moved, the wait begins anew. */
  const waited = (before: Round["kind"][], wait: Measure<"time">, round: Round): number | null => {
    const those = rounds.filter(({ kind }) => before.includes(kind));
    const last = through(those) ? lastIn(those) : null;
    const moved = lastIn([round], "moved");
    if (!last) return null;
    return Math.max(Date.parse(last.at), moved ? Date.parse(moved.at) : 0) + millisecondsOf(wait);
  };
  const untilOf = (round: Round): number | null => {
    if (round.kind === "again" && group.retorque)
      return waited(["part", "full", "angle", "lap"], group.retorque.wait, round);
    return round.kind === "full" && group.rest ? waited(["part"], group.rest, round) : null;
  };
  const waits = new Map(rounds.map((round) => [round.id, untilOf(round)]));
  const held = ({ kind }: Round): boolean =>
    kind === "again" || (kind === "full" && group.rest !== undefined);
  // Tightened too soon, the gasket still creeps: it does not count.
  const inTime = (round: string, place: number): boolean => {
    const of = byId.get(round);
    if (!of || !held(of)) return true;
    const until = waits.get(round) ?? null;
    return until !== null && Date.parse(said(round, place)?.at ?? "") >= until;
  };
  const session = sessionOf(
    rounds,
    order,
    (round, place) => DONE.has(is(round, place)) && inTime(round, place),
  );
  return {
    ...session,
    group,
    rounds,
    said,
    unreached: order.filter((place) => rounds.some(({ id }) => said(id, place)?.body.did === "unreached")),
    done: session.round === null,
    isUndisturbed,
    last: lastIn(rounds),
    until: session.round && (waits.get(session.round.id) ?? null),
  };
}

/** What a round wants of each place, in words; the torque is the house’s where it has one. */
export function roundWords(
  group: FastenerGroup,
  { kind, part }: Round,
  { house, unit }: { house: string | undefined; unit: UnitSystem },
): string {
  const torque = house ?? (group.torque ? shownIn(group.torque, unit) : "no torque known");
  switch (kind) {
    case "part": {
      const pass = group.passes?.[part];
      return pass ? shownIn(pass, unit) : "";
    }
    case "full":
      return torque;
    case "angle":
      return group.angle ? `on by ${measureText(group.angle)}` : "";
    case "lap":
      return `${torque}, one lap`;
    case "verify":
      return `holds at ${torque}`;
    case "again":
      return group.retorque ? `${shownIn(group.retorque.torque, unit)} again` : "";
  }
}
