import type { Logger } from "pino";
import { setTimeout as pause } from "node:timers/promises";
import type { Pool, Queryable } from "~store/database";
import type { Tell } from "~store/orders";
import { Tasks, type SupplierTask } from "~store/queue";
import {
  cancelled,
  comesAfterAll,
  keepAnswer,
  keepNews,
  noteWord,
  placed,
  type LineAnswer,
  type Placed,
} from "~store/suppliers";
import { readNo, readOrder, type OrderAnswer } from "./answers";

/** So long a supplier may take to answer, in ms. */
const PATIENCE = 10_000;
/** So long an answer may be, in bytes. */
const MOST = 2_000_000;
const START_AGAIN_MS = 5_000;

interface Settings {
  pool: Pool;
  log: Logger;
  /** Where each supplier with a computer answers, by its name. */
  urls: ReadonlyMap<string, string>;
  /** Seconds until an order that could not be sent is tried again. */
  retryAfter: number;
  /** Seconds between two questions how far an order is. */
  askEvery: number;
}

/**
 * `Mudflat Gears=http://127.0.0.1:4403; Causeway Supply=https://…`: where suppliers with a computer answer.
 *
 * @throws where an address is none.
 */
export function addressesOf(text: string): Map<string, string> {
  const entries = text.split(";").flatMap((entry): [string, string][] => {
    if (entry.trim() === "") return [];
    const at = entry.indexOf("=");
    const [name, url] = [entry.slice(0, at).trim(), entry.slice(at + 1).trim()];
    if (at < 0 || name === "" || !/^https?:$/.test(URL.canParse(url) ? new URL(url).protocol : ""))
      throw new Error(`SUPPLIERS: "${entry.trim()}" is no name=address; write Mudflat Gears=http://…`);
    return [[name, url.replace(/\/$/, "")]];
  });
  return new Map(entries);
}

/** Speaks with the suppliers that have a computer: orders, what is cancelled, how far it is. Whatever process is there does what there is to do. */
export class Suppliers {
  private readonly tasks: Tasks;
  private stopped = false;

  constructor(private readonly settings: Settings) {
    const { pool, retryAfter, log } = settings;
    this.tasks = new Tasks(pool, retryAfter, (error) => log.warn({ err: error }, "the queue of orders"));
  }

  /** Has something sent off, where its supplier has a computer. */
  readonly tell: Tell = async (db, supplier, task) => {
    if (!this.settings.urls.has(supplier)) return;
    if (task.do === "order") await noteWord(db, task.purchase, { what: "waiting", note: "" });
    await this.tasks.add(db, task);
  };

  /** Does what there is to do from now on; while the database is away it waits for it. */
  async start(): Promise<void> {
    if (this.settings.urls.size === 0) return;
    while (!this.stopped) {
      try {
        await this.tasks.start((task) => this.work(task));
        return;
      } catch (error) {
        this.settings.log.warn({ err: error }, "the queue of orders does not start");
        await pause(START_AGAIN_MS);
      }
    }
  }

  async stop(): Promise<void> {
    this.stopped = true;
    if (this.settings.urls.size > 0) await this.tasks.stop();
  }

  private work(task: SupplierTask): Promise<void> {
    switch (task.do) {
      case "order":
        return this.order(task.purchase);
      case "cancel":
        return this.cancel(task.event);
      case "ask":
        return this.ask(task.purchase);
    }
  }

  private async order(id: string): Promise<void> {
    const { pool } = this.settings;
    const of = await placed(pool, id);
    if (!of || of.answered) return;
    let answer: Answer;
    let told: OrderAnswer | null = null;
    try {
      answer = await this.speak(of.supplier, "/orders", id, {
        order: `${of.number}`,
        lines: of.lines.map(({ part, name, pieces, cents }) => ({ part, name, pieces, cents })),
      });
      if (answer.yes) told = readOrder(answer.body);
    } catch (error) {
      await noteWord(pool, id, { what: "failing", note: wordsOf(error) });
      throw error;
    }
    if (told) {
      const { order: note } = told;
      await keepAnswer(pool, of, { what: "taken", note }, answersOf(of, told), (db) => this.askLater(db, id));
      return;
    }
    const why = readNo(answer.body);
    const all = of.lines.map(({ id: line, due }) => ({ line, due, refused: why, sent: 0 }));
    await keepAnswer(pool, of, { what: "refused", note: why }, all);
  }

  private async cancel(event: string): Promise<void> {
    const { pool } = this.settings;
    const what = await cancelled(pool, event);
    const of = what && (await placed(pool, what.purchase));
    if (!what || !of || of.answered === "refused") return;
    if (!of.answered) throw new Error("the order is not answered yet");
    const { part, pieces, line } = what;
    const answer = await this.speak(of.supplier, `/orders/${of.id}/cancel`, event, { part, pieces });
    if (!answer.yes)
      await comesAfterAll(pool, {
        event,
        line,
        pieces,
        note: readNo(answer.body),
        supplier: of.supplier,
      });
  }

  private async ask(id: string): Promise<void> {
    const { pool } = this.settings;
    const of = await placed(pool, id);
    if (of?.answered !== "taken" || of.lines.every(({ open }) => open === 0)) return;
    const answer = await this.speak(of.supplier, `/orders/${id}`);
    if (answer.yes) await keepNews(pool, answersOf(of, readOrder(answer.body)));
    await this.askLater(pool, id);
  }

  private askLater(db: Queryable, purchase: string): Promise<void> {
    return this.tasks.addOnce(db, { do: "ask", purchase }, purchase, this.settings.askEvery);
  }

  /**
   * @param key by which the supplier knows again what it was told before.
   * @throws where it does not answer, or cannot just now.
   */
  private async speak(supplier: string, path: string, key?: string, body?: unknown): Promise<Answer> {
    const url = this.settings.urls.get(supplier);
    if (url === undefined) throw new Error("it has no address here any more");
    const response = await fetch(`${url}${path}`, {
      ...(body === undefined
        ? {}
        : {
            method: "POST",
            body: JSON.stringify(body),
            headers: { "content-type": "application/json", "idempotency-key": key ?? "" },
          }),
      // Where an order goes is the owner’s to say, not the supplier’s.
      redirect: "error",
      signal: AbortSignal.timeout(PATIENCE),
    });
    const text = await textOf(response);
    if (response.status >= 500 || response.status === 429) throw new Error(`it answers ${response.status}`);
    return { yes: response.ok, body: parsed(text) };
  }
}

interface Answer {
  yes: boolean;
  body: unknown;
}

/** @throws where it is longer than any answer to an order. */
async function textOf(response: Response): Promise<string> {
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of response.body ?? []) {
    size += part.length;
    if (size > MOST) throw new Error("its answer is too long");
    parts.push(part);
  }
  return Buffer.concat(parts).toString();
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return null;
  }
}

/** What is wrong, as a parts person reads it. */
function wordsOf(error: unknown): string {
  // By their names: what fetch throws need not be of the same kind as what this module would make.
  const { name = "", message = "" } = named(error);
  if (name === "TimeoutError") return "it takes too long to answer";
  if (name === "TypeError") return "it cannot be reached";
  return message === "" ? "it does not answer" : message.slice(0, 300);
}

const named = (error: unknown): { name?: string; message?: string } =>
  typeof error === "object" && error !== null
    ? { name: String((error as Error).name), message: String((error as Error).message) }
    : {};

/** The answer by the lines of the order; one the supplier says nothing of comes as it was ordered. */
function answersOf({ lines }: Placed, { lines: told }: OrderAnswer): LineAnswer[] {
  const byPart = new Map(told.map((one) => [one.part, one]));
  return lines.map(({ id, part, due }): LineAnswer => {
    const said = byPart.get(part);
    return { line: id, due: said?.due ?? due, refused: said?.refused ?? "", sent: said?.sent ?? 0 };
  });
}
