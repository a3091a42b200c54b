// What takes all of a processor for a moment, done beside the web process: built with the small processes, one thread for each web process.
import { parentPort } from "node:worker_threads";
import { labelsPdf } from "~/labels/labels-pdf";
import { draw } from "~/print/paper";
import { frontOf, plainCover, solvedBy, type SolveProgram } from "~core/kit";
import { restock } from "~core/restock";
import { chooseJointly } from "~core/select";
import { outcomeOf } from "~store/books";
import type { Answer, Asked, Done } from "./beside";

let made: Promise<SolveProgram> | null = null;
/** Fetched when it is first wanted: it is larger than all the rest. */
const solver = (): Promise<SolveProgram> =>
  (made ??= import("highs").then(async ({ default: loadHighs }) => solvedBy(await loadHighs())));

async function done(asked: Asked): Promise<Done> {
  switch (asked.what) {
    case "sheet":
      return new Uint8Array(await draw(asked.sheet));
    case "labels":
      return new Uint8Array(await labelsPdf(asked.labels, asked.sheet, asked.used));
    case "book":
      return outcomeOf(asked.document, asked.as);
    case "cover": {
      const solve = await solver();
      return { front: frontOf(asked.question, solve), plain: plainCover(asked.question, solve) };
    }
    case "restock":
      return restock(asked.question, await solver());
    case "choose":
      return chooseJointly(asked.question);
  }
}

parentPort?.on("message", ({ n, asked }: { n: number; asked: Asked }) => {
  const tell = (answer: Answer): void => parentPort?.postMessage(answer);
  done(asked).then(
    (result) => tell({ n, done: result }),
    (error: unknown) => tell({ n, problem: String(error) }),
  );
});
