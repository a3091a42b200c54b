import { replacedIn } from "./replace";
import type { Configuration } from "../book";
import type { Reopened } from "./assembled";
import { isKind, type Fact, type FactKind, type FactOf } from "./fact";
import type { Phase, ReadingBody } from "./kinds/measured";
import { findingsOf, goodOf } from "./looked-at";
import { byKind, lastByKey, standing } from "./last";
import { disagreements, inOrder, type Disagreement } from "./order";
import { upcast } from "./upcast";

/** A reading with the last word on whether it counts. */
export interface JobReading {
  fact: Fact<ReadingBody>;
  leftOut: FactOf<"leave-out"> | null;
}

/** What the facts say about one chain, in the order said. */
export interface ChainFacts {
  readings: JobReading[];
  conditions: FactOf<"conditions">[];
  explained: FactOf<"explained">[];
  waiver: FactOf<"waiver"> | null;
}

/** What the facts say about one seat, in the order said. */
export interface SeatFacts {
  fittings: FactOf<"fitting">[];
  choices: FactOf<"choice">[];
  unseen: FactOf<"unseen"> | null;
  /** Each time what was in came out, or went in again. */
  outs: FactOf<"taken-out">[];
}

/** A picture with what was drawn on it. */
export interface Photo {
  id: string;
  fact: FactOf<"photo">;
  marks: FactOf<"photo-mark">[];
}

type Last<K extends FactKind> = ReadonlyMap<string, FactOf<K>>;

const noFacts = (): ChainFacts => ({ readings: [], conditions: [], explained: [], waiver: null });
const noSeatFacts = (): SeatFacts => ({ fittings: [], choices: [], unseen: null, outs: [] });

/**
 * A job as its facts tell it now: of several words about the same thing the last one holds. Each answer looks through every fact, and pages ask
 * once a part or a step, so each is made when it is first asked and kept.
 */
export class Job {
  private readonly known = new Map<string, unknown>();
  private readonly lasts = new Map<FactKind, unknown>();

  /** @param live the facts that hold, in the order said; where a thing lies depends on what was said before. */
  constructor(
    readonly live: readonly Fact[],
    /** The same in the order stored. */
    readonly stored: readonly Fact[] = [],
    /** Steps that were laid open again, and by what. */
    readonly reopened: ReadonlyMap<string, Reopened> = new Map(),
  ) {}

  /** Where people said different things without knowing of each other. */
  get disagreements(): readonly Disagreement[] {
    return this.once("disagreements", () => disagreements(this.stored));
  }
  get booking(): FactOf<"booking"> | null {
    return this.latest("booking");
  }
  /** Trait → value, as far as it was seen. */
  get configuration(): Configuration {
    return this.once("configuration", () =>
      // Without a prototype: a trait may be called what every object has.
      Object.assign(
        Object.create(null) as Record<string, string>,
        Object.fromEntries(
          [...this.last("configuration")].map(([trait, { body }]) => [trait, body.traits[trait] ?? ""]),
        ),
      ),
    );
  }
  /** How deep the work goes; null until somebody said. */
  get depths(): readonly string[] | null {
    return this.latest("scope")?.body.depths ?? null;
  }
  /** The last word on what is made stronger, also where it takes that back. */
  get lastStronger(): FactOf<"stronger"> | null {
    return this.latest("stronger");
  }
  /** What is made stronger than it was built; null where it is built as it was. */
  get stronger(): FactOf<"stronger"> | null {
    const said = this.lastStronger;
    return said && said.body.ways.length > 0 ? said : null;
  }
  get holder(): FactOf<"holder"> | null {
    return this.latest("holder");
  }
  /** The last visit of this very unit before this one. */
  get earlier(): FactOf<"earlier-visit"> | null {
    return this.latest("earlier-visit");
  }
  /** What a lead said of its coming back. */
  get comeback(): FactOf<"comeback"> | null {
    return this.latest("comeback");
  }
  /** The quote the customer was last given. */
  get quoted(): FactOf<"quoted"> | null {
    return this.latest("quoted");
  }
  get closed(): FactOf<"closed"> | null {
    return this.latest("closed");
  }

  // What was told and looked at before the unit is opened.

  /** Answers to the diagnosis' questions that stand. */
  get answers(): readonly FactOf<"answer">[] {
    return this.once("answers", () => standing(this.allOf("answer"), "answer"));
  }
  get codes(): readonly FactOf<"code">[] {
    return this.once("codes", () => standing(this.allOf("code"), "code"));
  }
  get speeds(): readonly FactOf<"speeds">[] {
    return this.once("speeds", () => standing(this.allOf("speeds"), "speeds"));
  }
  get fluid(): FactOf<"fluid"> | null {
    return this.last("fluid").get("") ?? null;
  }
  /** How each fluid of the unit looks: the transmission’s own under an empty name, the others by their ids. */
  get fluids(): Last<"fluid"> {
    return this.last("fluid");
  }
  /** What steps asked to be noted down. */
  get noted(): Last<"noted"> {
    return this.last("noted");
  }
  /** Questions about parts, open and answered. */
  get partQuestions(): Last<"part-question"> {
    return this.last("part-question");
  }
  /** By place and kind; those seen not to be there among them. */
  get debris(): readonly FactOf<"debris">[] {
    return [...this.last("debris").values()];
  }
  get conclusion(): FactOf<"conclusion"> | null {
    return this.latest("conclusion");
  }
  get readOuts(): readonly FactOf<"read-out">[] {
    return [...this.last("read-out").values()];
  }
  get places(): readonly FactOf<"place">[] {
    return [...this.last("place").values()];
  }
  /** What came off that the book has no step for, in the order it did. */
  get cameOff(): readonly FactOf<"came-off">[] {
    return this.once("cameOff", () => standing(this.allOf("came-off"), "came-off"));
  }
  /** What the book of the unit should say next time. */
  get nextTime(): readonly FactOf<"next-time">[] {
    return this.once("nextTime", () => standing(this.allOf("next-time"), "next-time"));
  }
  get photos(): readonly Photo[] {
    return this.once("photos", () => {
      const marks = this.allOf("photo-mark");
      const gone = new Set(marks.flatMap(({ body }) => (body.there ? [] : (body.mark ?? []))));
      return [...this.last("photo").values()].map((fact) => ({
        id: fact.body.photo,
        fact,
        marks: marks.filter(({ id, body }) => body.photo === fact.body.photo && body.there && !gone.has(id)),
      }));
    });
  }

  // What was measured.

  /** The last word on a figure that is no series of readings. */
  figure(
    of: "chain" | "measurement",
    id: string,
    phase: Phase = "found",
    item = "",
  ): FactOf<"figure"> | null {
    const figures = this.last("figure");
    return figures.size === 0 ? null : (figures.get(`${of} ${id} ${phase} ${item}`) ?? null);
  }
  get chains(): ReadonlyMap<string, ChainFacts> {
    return this.once("chains", () => chainsOf(this.live, this.last("leave-out")));
  }
  get seats(): ReadonlyMap<string, SeatFacts> {
    return this.once("seats", () => seatsOf(this.live));
  }
  /** Every fitting after what was found, in the order said: what a reading’s `fit` counts. */
  get changes(): readonly FactOf<"fitting">[] {
    return this.once("changes", () => this.allOf("fitting").filter(({ body }) => body.fit > 0));
  }

  // What was said at the bench about taking down, cleaning and looking.

  /** The last word on each step. */
  get steps(): Last<"step"> {
    return this.last("step");
  }
  /** Where each step was last undone. */
  get undone(): Last<"step"> {
    return this.once("undone", () =>
      lastByKey(
        this.allOf("step").filter(({ body }) => body.did === "undone"),
        "step",
      ),
    );
  }
  /** What was answered of each check of a step. */
  get checks(): Last<"check"> {
    return this.last("check");
  }
  /** How many plates of a pack lie in it, by the step that puts them in and the element. */
  get plates(): Last<"plates"> {
    return this.last("plates");
  }
  /** Check balls counted into their places, by the step and the round. */
  get laid(): Last<"laid"> {
    return this.last("laid");
  }
  /** Soaks begun and ended, by their step. */
  get timers(): Last<"timer"> {
    return this.last("timer");
  }
  /** What air did at each element. */
  get airs(): Last<"air"> {
    return this.last("air");
  }
  /** Each place of each round of each fastener group. */
  get tightened(): Last<"tightened"> {
    return this.last("tightened");
  }
  /** What was done otherwise than the book has it, by step and what it stands for. */
  get deviations(): Last<"deviation"> {
    return this.last("deviation");
  }
  /** What was seen to in the vehicle. */
  get proofs(): Last<"proof"> {
    return this.last("proof");
  }
  /** What the control unit remembered, by the proof it was read for and when. */
  get codesRead(): Last<"codes-read"> {
    return this.last("codes-read");
  }
  /** What happened in each procedure, in the order said. */
  get procedures(): readonly FactOf<"procedure">[] {
    return this.allOf("procedure");
  }
  /** Every amount of fluid that went in or ran out. */
  get filled(): readonly FactOf<"filled">[] {
    return this.allOf("filled");
  }
  /** What the control unit learned anew. */
  get relearned(): Last<"relearned"> {
    return this.last("relearned");
  }
  /** How it is on each drive, by what was asked. */
  get driven(): Last<"driven"> {
    return this.last("driven");
  }
  /** Speeds read on a drive, by the drive and the range. */
  get driveSpeeds(): Last<"drive-speeds"> {
    return this.last("drive-speeds");
  }
  /** Each drive at its end. */
  get drives(): Last<"drive"> {
    return this.last("drive");
  }
  /** Which places of each fastener group are out. */
  get outs(): Last<"out"> {
    return this.last("out");
  }
  /** How each part sat before it came off. */
  get sat(): Last<"sat"> {
    return this.last("sat");
  }
  get counts(): Last<"count"> {
    return this.last("count");
  }
  get balls(): FactOf<"balls"> | null {
    return this.latest("balls");
  }
  /** What was found built wrong and still stands. */
  get wrongs(): readonly FactOf<"wrong">[] {
    return this.once("wrongs", () => standing(this.allOf("wrong"), "wrong"));
  }
  /** The last cleaning of each thing: a part, or a place where metal hides. */
  get cleaning(): Last<"cleaning"> {
    return this.last("cleaning");
  }
  /** Parts looked at and in good order; a finding made later takes them off the list. */
  get good(): Last<"good"> {
    return this.once("good", () => goodOf(this.live));
  }
  /** What was found on parts and stands. */
  get findings(): readonly FactOf<"finding">[] {
    return this.once("findings", () => findingsOf(this.live));
  }
  get dispositions(): Last<"disposition"> {
    return this.last("disposition");
  }
  /** Parts that a new one went in for. */
  get renewed(): Last<"renewed"> {
    return this.once(
      "renewed",
      () => new Map([...this.last("renewed")].filter(([, { body }]) => body.there)),
    );
  }
  get weakPoints(): Last<"weak-point"> {
    return this.last("weak-point");
  }
  get causes(): Last<"cause"> {
    return this.last("cause");
  }
  /** Where what goes in comes from, by part, where somebody said. */
  get sources(): Last<"part-source"> {
    return this.last("part-source");
  }
  /** Later parts that go in instead of what was found, in the order they were decided on. */
  get later(): readonly FactOf<"part-source">[] {
    return this.once("later", () =>
      this.allOf("part-source").filter(
        (fact) => fact.body.from === "later" && this.sources.get(fact.body.part) === fact,
      ),
    );
  }
  /** What becomes of old parts. */
  get oldParts(): Last<"old-part"> {
    return this.last("old-part");
  }
  get offers(): Last<"offer"> {
    return this.last("offer");
  }
  /** What a lead answers for, by what `core/stage` calls it. */
  get signOffs(): Last<"sign-off"> {
    return this.last("sign-off");
  }
  get wayOn(): FactOf<"way-on"> | null {
    return this.latest("way-on");
  }

  /** The last fact of a kind, whatever it is about. */
  private latest<K extends FactKind>(kind: K): FactOf<K> | null {
    return this.allOf(kind).at(-1) ?? null;
  }
  /** The last fact of a kind about each thing. */
  private last<K extends FactKind>(kind: K): Last<K> {
    // Asked for some hundred times a page: without a word made for it each time.
    const found = (this.lasts.get(kind) as Last<K> | undefined) ?? lastByKey(this.allOf(kind), kind);
    this.lasts.set(kind, found);
    return found;
  }
  /** The facts of a kind, in the order said. */
  private allOf<K extends FactKind>(kind: K): readonly FactOf<K>[] {
    const kinds = this.once("kinds", () => byKind(this.live));
    return (kinds.get(kind) as readonly FactOf<K>[] | undefined) ?? [];
  }
  private once<T>(name: string, make: () => T): T {
    if (!this.known.has(name)) this.known.set(name, make());
    return this.known.get(name) as T;
  }
}

function chainsOf(live: readonly Fact[], outs: Last<"leave-out">): Map<string, ChainFacts> {
  const chains = new Map<string, ChainFacts>();
  const of = (chain: string): ChainFacts => {
    const known = chains.get(chain) ?? noFacts();
    chains.set(chain, known);
    return known;
  };
  for (const fact of live) {
    if (isKind(fact, "reading")) {
      const out = outs.get(fact.id);
      of(fact.body.chain).readings.push({ fact, leftOut: out?.body.out ? out : null });
    } else if (isKind(fact, "conditions")) of(fact.body.chain).conditions.push(fact);
    else if (isKind(fact, "explained")) of(fact.body.chain).explained.push(fact);
    else if (isKind(fact, "waiver")) of(fact.body.chain).waiver = fact;
  }
  return chains;
}

function seatsOf(live: readonly Fact[]): Map<string, SeatFacts> {
  const seats = new Map<string, SeatFacts>();
  const of = (seat: string): SeatFacts => {
    const known = seats.get(seat) ?? noSeatFacts();
    seats.set(seat, known);
    return known;
  };
  for (const fact of live) {
    if (isKind(fact, "fitting")) of(fact.body.seat).fittings.push(fact);
    else if (isKind(fact, "choice")) of(fact.body.seat).choices.push(fact);
    else if (isKind(fact, "unseen")) of(fact.body.seat).unseen = fact;
    else if (isKind(fact, "taken-out")) of(fact.body.seat).outs.push(fact);
  }
  return seats;
}

const NO_SEAT_FACTS: SeatFacts = noSeatFacts();
/** @returns the facts about one seat; empty ones where none was said. */
export const seatFacts = (job: Job, seat: string): SeatFacts => job.seats.get(seat) ?? NO_SEAT_FACTS;

const NO_FACTS: ChainFacts = noFacts();
/** @returns the facts about one chain; empty ones where none was said. */
export const chainFacts = (job: Job, chain: string): ChainFacts => job.chains.get(chain) ?? NO_FACTS;

/**
 * Facts → job. Pure, so that server and bench always agree; facts that were sent twice count once, and what an earlier Yard Key stored is read as
 * today's.
 *
 * @param facts in the order they were stored; those still waiting in the browser come last.
 */
export function fold(facts: readonly Fact[]): Job {
  const today = facts.map(upcast);
  const seen = new Set<string>();
  const replaced = replacedIn(today);
  const once = today.filter(({ id }) => !seen.has(id) && seen.add(id));
  const holds = ({ id }: Fact): boolean => !replaced.has(id);
  return new Job(inOrder(once).filter(holds), once.filter(holds));
}
