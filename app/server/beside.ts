import { resolve } from "node:path";
import { Worker } from "node:worker_threads";
import type { Label } from "~/labels/labels-pdf";
import type { Sheet as LabelSheet } from "~/labels/sheets";
import type { Sheet } from "~/print/paper";
import type { Cover, CoverQuestion } from "~core/kit";
import type { Restock, RestockQuestion } from "~core/restock";
import type { JointPlan, JointQuestion } from "~core/select";
import type { Checked } from "~store/books";

/** What is to be done. */
export type Asked =
  | { what: "sheet"; sheet: Sheet }
  | { what: "labels"; labels: readonly Label[]; sheet: LabelSheet; used: number }
  | { what: "book"; document: unknown; as: "written" | "kept" }
  | { what: "choose"; question: JointQuestion }
  | { what: "cover"; question: CoverQuestion }
  | { what: "restock"; question: RestockQuestion };
export type Done = Uint8Array | Checked | JointPlan | Ways | Restock;

/** The ways to cover a list: from the cheapest to the soonest, and beside them what one would buy without thinking. */
export interface Ways {
  front: Cover[];
  plain: Cover;
}
export type Answer = { n: number; done: Done } | { n: number; problem: string };

const BUILT = resolve("build/processes/beside.js");
/** The largest book takes a hundredth of this. */
const LONGEST_MS = 20_000;

/** Heavy work is done on a thread of its own, one after another, and the shop's requests go on. */
class Beside {
  private worker: Worker | null = null;
  private readonly waiting = new Map<number, (answer: Answer) => void>();
  private last = 0;

  /** @throws where it cannot be done, or takes longer than anything of ours. */
  async ask(asked: Asked): Promise<Done> {
    const n = ++this.last;
    const answer = await new Promise<Answer>((answered) => {
      const timer = setTimeout(() => void this.worker?.terminate(), LONGEST_MS);
      this.waiting.set(n, (told) => {
        clearTimeout(timer);
        answered(told);
      });
      (this.worker ??= this.started()).postMessage({ n, asked });
    });
    if ("problem" in answer) throw new Error(answer.problem);
    return answer.done;
  }

  private started(): Worker {
    const worker = new Worker(BUILT);
    // It keeps no process alive that has nothing else to do.
    worker.unref();
    worker.on("message", (answer: Answer) => {
      const answered = this.waiting.get(answer.n);
      this.waiting.delete(answer.n);
      answered?.(answer);
    });
    // Whoever waited is told; the next one to ask starts another.
    worker.on("error", (error) => this.ended(String(error)));
    worker.on("exit", () => this.ended("it took too long"));
    return worker;
  }

  private ended(problem: string): void {
    this.worker = null;
    const waiting = [...this.waiting];
    this.waiting.clear();
    for (const [n, answered] of waiting) answered({ n, problem });
  }
}

const beside = new Beside();

/** @returns a sheet or labels as a PDF. */
export const printed = async (asked: Extract<Asked, { what: "sheet" | "labels" }>): Promise<Uint8Array> =>
  (await beside.ask(asked)) as Uint8Array;

/** The check of a book that somebody gives us, for `addBook`: what it holds may take long to see through. */
export const checkedBeside = async (document: unknown, as: "written" | "kept"): Promise<Checked> =>
  (await beside.ask({ what: "book", document, as })) as Checked;

/** The best for several jobs at once, which may take a second or two. */
export const chosenBeside = async (question: JointQuestion): Promise<JointPlan> =>
  (await beside.ask({ what: "choose", question })) as JointPlan;

/** How a list is covered: whole boxes are an integer program, which takes a part of a second. */
export const coveredBeside = async (question: CoverQuestion): Promise<Ways> =>
  (await beside.ask({ what: "cover", question })) as Ways;

/** What to keep on the shelf: some thousand futures, and an integer program over them. */
export const restockedBeside = async (question: RestockQuestion): Promise<Restock> =>
  (await beside.ask({ what: "restock", question })) as Restock;

/** @returns the answer that hands a PDF over under a name. */
export const handOver = (pdf: Uint8Array, name: string): Response =>
  new Response(new Uint8Array(pdf), {
    headers: {
      "Content-Type": "application/pdf",
      "Content-Disposition": `attachment; filename="${name}.pdf"`,
    },
  });
