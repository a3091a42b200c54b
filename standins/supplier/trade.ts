/** What is asked for of one part. */
export interface Wanted {
  part: string;
  pieces: number;
}
/** One line as the supplier tells of it. */
export interface Told {
  part: string;
  /** ISO day by which all of it is there; null where nobody knows. */
  due: string | null;
  /** Pieces on the road. */
  sent: number;
  /** Why it does not come; empty where it does. */
  refused: string;
}
export interface Order {
  order: string;
  lines: Told[];
}

/** How the supplier behaves: what real ones do on bad days, at will. */
export interface Behaviour {
  /** Answers nothing but 503. */
  down: boolean;
  /** Milliseconds before it answers. */
  slow: number;
  /** Takes what it is told and loses the answer to it. */
  losesAnswers: boolean;
  /** Parts it does not send, and why. */
  refuses: Readonly<Record<string, string>>;
  /** Turns whole orders away, and why; empty where it takes them. */
  turnsAway: string;
  /** So many of each part are on the road; all the rest waits. */
  sent: Readonly<Record<string, number>>;
  /** Days later than usual. */
  late: number;
}

export const WELL: Behaviour = {
  down: false,
  slow: 0,
  losesAnswers: false,
  refuses: {},
  turnsAway: "",
  sent: {},
  late: 0,
};

/** What a supplier has in its list: days until it is there, by part number. */
export type Catalogue = ReadonlyMap<string, { days: number | null }>;

/** The books of a simulated supplier: what is told twice under one key is done once. */
export class Trade {
  behaviour: Behaviour = WELL;
  private readonly orders = new Map<
    string,
    { number: string; wanted: Wanted[]; refused: Map<string, string> }
  >();
  private readonly cancels = new Map<string, string>();

  /**
   * @param catalogue what it sells; one without a catalogue sells everything.
   * @param today by its own calendar.
   */
  constructor(
    private readonly catalogue: Catalogue,
    private readonly today: () => Date,
  ) {}

  /** @returns why the order is turned away, or what is taken of it; the same for the same key. */
  place(key: string, wanted: readonly Wanted[]): Order | { why: string } {
    if (!this.orders.has(key)) {
      if (this.behaviour.turnsAway) return { why: this.behaviour.turnsAway };
      const refused = new Map(
        wanted.flatMap(({ part }) => {
          const unknown = this.catalogue.size > 0 && !this.catalogue.has(part) ? "not in our list" : "";
          const why = this.behaviour.refuses[part] ?? unknown;
          return why ? [[part, why] as const] : [];
        }),
      );
      const number = `S-${7001 + this.orders.size}`;
      this.orders.set(key, { number, wanted: wanted.map((one) => ({ ...one })), refused });
    }
    return this.told(key) ?? { why: "no such order" };
  }

  /** How far an order is; null where there is none of this key. */
  told(key: string): Order | null {
    const order = this.orders.get(key);
    if (!order) return null;
    const lines = order.wanted.map(({ part, pieces }): Told => {
      const refused = order.refused.get(part) ?? "";
      const days = this.catalogue.get(part)?.days ?? null;
      return {
        part,
        refused,
        due: refused || days === null ? null : this.day(days + this.behaviour.late),
        sent: refused ? 0 : Math.min(pieces, this.behaviour.sent[part] ?? 0),
      };
    });
    return { order: order.number, lines };
  }

  /** @returns why it cannot be cancelled any more; empty where it is. The same for the same key. */
  cancel(order: string, key: string, { part, pieces }: Wanted): string {
    const known = this.cancels.get(key);
    if (known !== undefined) return known;
    const line = this.orders.get(order)?.wanted.find((one) => one.part === part);
    const sent = this.told(order)?.lines.find((one) => one.part === part)?.sent ?? 0;
    const free = (line?.pieces ?? 0) - sent;
    const why = !line ? "not ordered here" : free < pieces ? `${sent} are on the road already` : "";
    if (line && why === "") line.pieces -= pieces;
    this.cancels.set(key, why);
    return why;
  }

  /** How many orders it has taken. */
  get count(): number {
    return this.orders.size;
  }

  private day(days: number): string {
    const at = this.today();
    at.setUTCDate(at.getUTCDate() + days);
    return at.toISOString().slice(0, 10);
  }
}
