import { setTimeout as pause } from "node:timers/promises";
import type { Request, RequestHandler, Response } from "express";
import pLimit from "p-limit";
import { sessionCookie } from "./session";

/** So many requests of people who are not signed in are worked on at once, and so many more wait. */
const AT_ONCE = 2;
const MOST_WAITING = 200;
/** How long one of them may keep its place, and how long its body may take to come, in ms. */
const LONGEST = 5_000;
const BODY_PATIENCE = 10_000;
const LOOK_AGAIN = 20;
/** How long the work of the house goes before theirs, in ms; what takes longer, as a stream does, is no work that ends. */
const BRIEF = 300;

/**
 * Tells whether a request bears a session that was sealed here. It may be over: that is for the door to find out.
 *
 * @param key the one cookies are signed with.
 */
export function sealedBy(key: string): (cookies: string) => Promise<boolean> {
  const kept = [false, true].map((secure) => sessionCookie(key, secure));
  return async (cookies) => {
    const read: unknown[] = await Promise.all(kept.map((cookie) => cookie.parse(cookies)));
    return read.some((session) => typeof session === "string" && session !== "");
  };
}

/**
 * People who are not signed in are let in two at a time, each when all it has to say has come, while nothing of the house is worked on, and for no
 * more than half of the time; those who are signed in do not wait behind them. What a stranger may send before the door fits the connection's buffer,
 * so that nobody holds a place by sending slowly.
 *
 * @param key the one cookies are signed with.
 * @param brief how long what the house asks goes before, in ms.
 */
export function strangersInTurn(key: string, brief = BRIEF): RequestHandler {
  const turn = pLimit(AT_ONCE);
  const isSealed = sealedBy(key);
  const house = new House(brief);
  return async (request, response, next) => {
    if (await isSealed(request.get("cookie") ?? "")) {
      house.begins(response);
      return next();
    }
    if (turn.pendingCount >= MOST_WAITING) {
      response.status(503).set("Retry-After", "2").type("text").send("Many are at the door. Try again.");
      return;
    }
    void arrived(request).then((all) => {
      if (!all) {
        response.destroy();
        return;
      }
      return turn(async () => {
        await house.isQuiet();
        if (response.destroyed) return;
        const begun = performance.now();
        next();
        await answered(response, LONGEST);
        await pause(Math.min(performance.now() - begun, brief), undefined, { ref: false });
      });
    });
  };
}

/** What is worked on for those who are signed in. */
class House {
  private busy = 0;
  private waiting: (() => void)[] = [];
  constructor(private readonly brief: number) {}

  begins(response: Response): void {
    this.busy++;
    void answered(response, this.brief).then(() => {
      if (--this.busy > 0) return;
      for (const go of this.waiting.splice(0)) go();
    });
  }

  /** Until nothing is, but for no longer than anything of it goes before. */
  async isQuiet(): Promise<void> {
    if (this.busy === 0) return;
    await Promise.race([
      new Promise<void>((done) => this.waiting.push(done)),
      pause(this.brief, undefined, { ref: false }),
    ]);
  }
}

/** Waits until the whole body is here; false when it does not come, or its sender has gone. */
async function arrived(request: Request): Promise<boolean> {
  const length = Number(request.get("content-length") ?? 0);
  const until = performance.now() + BODY_PATIENCE;
  // A body longer than the connection's buffer is read as it comes: limits by door have refused what is too long.
  const enough = Math.min(length, request.readableHighWaterMark);
  while (request.readableLength < enough) {
    if (request.destroyed || performance.now() > until) return false;
    await pause(LOOK_AGAIN);
  }
  return true;
}

/** Until a request is answered, or its sender has gone, or so many ms have passed. */
const answered = (response: Response, longest: number): Promise<unknown> =>
  Promise.race([
    new Promise((done) => {
      response.once("finish", done);
      response.once("close", done);
    }),
    pause(longest, undefined, { ref: false }),
  ]);
