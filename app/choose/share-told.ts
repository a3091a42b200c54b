import { unitName } from "~core/book";
import { markOf, type MarkName } from "~/look/mark";
import { predict, type Piece } from "~core/chain";
import {
  swapsOf,
  together,
  titleOf,
  type JobAsked,
  type JobShare,
  type Share,
  type Together,
} from "~core/measure";
import type { LengthUnit, Nm } from "~core/quantity";
import { chanceInside, judge, type DecisionRule, isStated, type Limits } from "~core/reading";
import type { Source } from "~core/select";
import type { Pool } from "~store/database";
import type { HouseSettings } from "~store/house";
import { jobByNumber, openJobStates, type JobRecord } from "~store/jobs";
import { reservedFor, type Reserved } from "~store/shelf";
import { stockOfUnits } from "./chain-page";
import { unitOf } from "./decide";
import { pieceText } from "./piece-text";
import { planText } from "./put-aside";
import { seatName } from "./seat-name";

/** So many of the newest open jobs are looked through, and at most so many of them shared out at once. */
const LOOKED_THROUGH = 60;
const AT_ONCE = 40;

interface Asking {
  record: JobRecord;
  asked: Together;
  held: readonly Reserved[];
}

/** The open jobs that something can be chosen for now, each asking of the same shelf; what is put aside for one of them stays its own. */
export async function asking(
  pool: Pool,
  house: HouseSettings,
  without: ReadonlySet<number>,
): Promise<Asking[]> {
  const open = await openJobStates(pool, LOOKED_THROUGH);
  const records: JobRecord[] = [];
  for (const { number } of open) {
    const record = without.has(number) ? null : await jobByNumber(pool, number);
    if (record) records.push(record);
  }
  // Whoever has nothing to choose keeps what is put aside for them.
  const nothing = records.map((record) => ({ record, asked: together(unitOf(record, house, [])) }));
  const choosing = nothing.flatMap(({ record, asked }) => (asked.seats.size > 0 ? [record] : []));
  const some = choosing.slice(0, AT_ONCE);
  const stock = await stockOfUnits(pool, some);
  return Promise.all(
    some.map(async (record) => {
      const held = await reservedFor(pool, record.id);
      return { record, asked: keeping(together(unitOf(record, house, stock)), held), held };
    }),
  );
}

/** With nothing else for a seat than what is put aside for it. */
function keeping(asked: Together, held: readonly Reserved[]): Together {
  const seats = asked.question.seats.map((seat) => {
    const own = held.find((one) => one.seat === seat.id);
    const pinned = own && seat.offers.find(({ lot }) => lot === (own.piece ?? own.part))?.id;
    return pinned === undefined ? seat : { ...seat, pinned };
  });
  return { ...asked, question: { ...asked.question, seats } };
}

export const jobsAsked = (all: readonly Asking[]): JobAsked[] =>
  all.map(({ record, asked }) => ({ job: String(record.number), asked }));

/** A figure that a seat moves. */
export interface FigureTold {
  title: string;
  now: Nm;
  then: Nm;
  mark: MarkName;
  /** Null where no limit is known. */
  chance: number | null;
  limits: Limits;
}
export interface SeatTold {
  seat: string;
  name: string;
  chain: string;
  fitted: Piece;
  /** Null where what is in stays, or nothing can be had. */
  put: Piece | null;
  kept: boolean;
  source: Source | null;
  isHeld: boolean;
  /** What it would take if no other job were there; absent where it is the same. */
  alone?: { words: string; goesTo?: string };
  figures: FigureTold[];
}

/** What a job gets, as the page shows it. */
export function jobTold(
  { record: { number, book, facts }, asked, held }: Asking,
  { together: plan, alone }: JobShare,
  rule: DecisionRule,
  takers: ReadonlyMap<string, string>,
) {
  const unit = book.unit.lengthUnit;
  const vehicle = facts.flatMap(({ body }) => (body.kind === "booking" ? [body.vehicle] : [])).at(-1) ?? "";
  const seats = plan.seats.flatMap(({ seat }): SeatTold[] => {
    const open = asked.seats.get(seat);
    if (!open) return [];
    const gets = goesIn(asked, plan, seat, unit);
    const would = goesIn(asked, alone, seat, unit);
    const { piece = null, source = null } = gets.offered ?? {};
    return [
      {
        seat,
        name: seatName(open),
        chain: open.sheets[0]?.applied.chain.id ?? "",
        fitted: open.fitted,
        put: piece,
        kept: gets.kept,
        source,
        isHeld: held.some((one) => one.seat === seat && one.part === piece?.part),
        ...(would.words === gets.words ? {} : { alone: aloneOf(would, takers) }),
        figures: open.sheets.flatMap((sheet) => figureTold(sheet, asked, plan, rule)),
      },
    ];
  });
  return {
    number,
    vehicle,
    unitName: unitName(book.unit),
    unit,
    seats,
    text: planText(asked, plan),
  };
}

/** Who takes from each lot when all are looked at together; the first of several. */
export function takersOf(told: readonly JobShare[]): Map<string, string> {
  const takers = new Map<string, string>();
  for (const { job, together: share } of told)
    for (const { offer, kept } of share.seats)
      if (offer?.lot !== undefined && !kept && !takers.has(offer.lot)) takers.set(offer.lot, job);
  return takers;
}

const aloneOf = (
  { words, lot }: ReturnType<typeof goesIn>,
  takers: ReadonlyMap<string, string>,
): { words: string; goesTo?: string } => {
  const goesTo = lot === undefined ? undefined : takers.get(lot);
  return goesTo === undefined ? { words } : { words, goesTo };
};

/** What a plan puts into a seat, and that in words. */
function goesIn(asked: Together, plan: Share, seat: string, unit: LengthUnit) {
  const is = plan.seats.find((one) => one.seat === seat);
  const kept = is?.kept ?? false;
  const offered = is?.offer && !kept ? asked.offers.get(is.offer.id) : undefined;
  const ordered = offered?.source.kind === "order" ? " ordered" : "";
  const said = kept
    ? "keep it"
    : offered
      ? `${pieceText(offered.piece, unit)}${ordered}`
      : "nothing that can be had";
  return { kept, offered, words: said, lot: kept ? undefined : is?.offer?.lot };
}

function figureTold(
  sheet: Parameters<typeof titleOf>[0],
  asked: Together,
  plan: Share,
  rule: DecisionRule,
): FigureTold[] {
  const { chain, spec } = sheet.applied;
  const now = asked.sheets.get(chain.id)?.now;
  if (!now) return [];
  const then = predict(now, swapsOf(asked, plan, chain.id));
  return [
    {
      title: titleOf(sheet),
      now: now.mean,
      then: then.mean,
      mark: markOf(judge(then, spec, rule)),
      chance: isStated(spec) ? chanceInside(then, spec) : null,
      limits: spec,
    },
  ];
}
