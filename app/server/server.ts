import { randomBytes, randomUUID } from "node:crypto";
import { createRequestHandler } from "@react-router/express";
import compression from "compression";
import express, {
  type ErrorRequestHandler,
  type Express,
  type Request,
  type RequestHandler,
  type Response,
} from "express";
import helmet from "helmet";
import onHeaders from "on-headers";
import type { Logger } from "pino";
import { RouterContextProvider } from "react-router";
import { openPool, writtenFirst, sqlState, type Pool } from "~store/database";
import { Live } from "~store/live";
import { cookieKey } from "~store/house";
import { againstSchema } from "~store/schema";
import { isOwnHost } from "./hosts";
import { addressesOf, Suppliers } from "../suppliers/suppliers";
import { strangersInTurn } from "./strangers";
import { address, services, nonce, type Https } from "./context";

export interface Settings {
  databaseUrl: string;
  gaugeUrl: string;
  scanToolUrl: string;
  printerUrl: string;
  gallery: boolean;
  firstRunCode: string;
  /** Names this server is called by besides those of `hosts.ts`. */
  hosts: readonly string[];
  https: Https | null;
  /** Where suppliers with a computer answer, and how often they are asked, in seconds. */
  suppliers: { addresses: string; retryAfter: number; askEvery: number };
  log: Logger;
}

/** One web process. Any number of them may run on one database. */
export async function createApp({
  databaseUrl: databaseUrls,
  gallery,
  https,
  hosts,
  suppliers: { addresses, ...pace },
  log,
  ...standins
}: Settings): Promise<{ app: Express; close: () => Promise<void> }> {
  const databaseUrl = await writtenFirst(databaseUrls);
  const pool = openPool(databaseUrl, (error) => log.warn({ err: error }, "database connection lost"));
  const against = await againstSchema(pool);
  if (against) throw new Error(against);
  const key = await cookieKey(pool);
  const live = new Live(databaseUrl);
  await live.start();
  const suppliers = new Suppliers({ pool, log, urls: addressesOf(addresses), ...pace });
  void suppliers.start();
  const app = express();
  app.disable("x-powered-by");
  app.use(logged(log));
  app.get("/healthz", health(pool));
  app.use(known(hosts, log));
  app.use(unkept);
  if (https) app.use(secureElsewhere(https));
  app.use(secured());
  app.use(sameOrigin(log));
  app.use(limited);
  // A stream of events must not wait in a compressor's buffer.
  app.use(
    compression({
      filter: (request, response) =>
        response.getHeader("Content-Type") !== "text/event-stream" && compression.filter(request, response),
    }),
  );
  app.use("/assets", express.static("build/client/assets", { immutable: true, maxAge: "1y" }));
  app.use(
    express.static("build/client", {
      maxAge: "1h",
      setHeaders: (response, path) => {
        // A new version of the service worker is found at once.
        if (path.endsWith("sw.js")) response.setHeader("Cache-Control", "no-cache");
      },
    }),
  );
  app.use(strangersInTurn(key));
  app.use(
    createRequestHandler({
      // The pages themselves, not a way to ask for them: each request would rank all routes anew.
      build: await import("virtual:react-router/server-build"),
      getLoadContext: (request, response) => {
        const context = new RouterContextProvider();
        context.set(address, request.socket.remoteAddress ?? "");
        context.set(services, {
          pool,
          log,
          live,
          gallery,
          https,
          cookieKey: key,
          tellSupplier: suppliers.tell,
          ...standins,
        });
        context.set(nonce, (response.locals as { nonce: string }).nonce);
        return context;
      },
    }),
  );
  app.use(failed(log));
  const close = async (): Promise<void> => {
    await suppliers.stop();
    await Promise.all([live.stop(), pool.end()]);
  };
  return { app, close };
}

/** So often at most it is tried whether something can be stored, in ms. */
const STORED_EVERY = 5_000;

/** Whether the database answers, and takes what is to be stored: a full disk and a standby answer too. */
function health(pool: Pool): RequestHandler {
  let stored = -Infinity;
  return (_request, response) => {
    const due = performance.now() - stored > STORED_EVERY;
    pool.query(due ? "update health set at = now()" : "select 1").then(
      () => {
        if (due) stored = performance.now();
        response.json({ database: "answers" });
      },
      (error: unknown) =>
        response
          .status(503)
          .json({ database: sqlState(error) === null ? "does not answer" : "stores nothing" }),
    );
  };
}

/** One line a request: method, path without its query, status, time. No bodies, no headers. */
function logged(log: Logger): RequestHandler {
  return (request, response, next) => {
    const begun = performance.now();
    const id = randomUUID();
    response.on("finish", () => {
      const level = response.statusCode >= 500 ? "error" : "info";
      log[level](
        {
          id,
          method: request.method,
          path: request.path,
          status: response.statusCode,
          ms: Math.round(performance.now() - begun),
        },
        "request",
      );
    });
    next();
  };
}

const LOOPBACK = /^(127\.|::1$|::ffff:127\.)/;

/** Over the network only https, but for the page that tells how to trust it: what is typed there would pass in the open. */
function secureElsewhere({ port }: Https): RequestHandler {
  return (request, response, next) => {
    const here = LOOPBACK.test(request.socket.remoteAddress ?? "");
    if (request.secure || here || /^\/(trust|assets|favicon|healthz)/.test(request.path)) return next();
    response.redirect(308, `https://${request.hostname}:${port}${request.originalUrl}`);
  };
}

/** Answers only to its own names: a stranger's page whose name was turned to this address speaks for nobody here. */
function known(hosts: readonly string[], log: Logger): RequestHandler {
  return (request, response, next) => {
    if (isOwnHost(request.get("host") ?? "", hosts)) return next();
    log.warn({ host: request.get("host") }, "refused: a foreign name");
    response.status(421).type("text").send("This server is not called by that name. HOSTS names its own.");
  };
}

/** Nothing of the shop stays in a cache, but for what says itself that it may. */
const unkept: RequestHandler = (_request, response, next) => {
  onHeaders(response, () => {
    if (!response.hasHeader("Cache-Control")) response.setHeader("Cache-Control", "no-store");
  });
  next();
};

/** A month: a browser that has been here over https comes by no other way. */
const SECURE_S = 30 * 24 * 3600;

/** What a page may ask the browser for: the camera for labels, the serial line for a gauge, and nothing else. */
const PERMISSIONS =
  "camera=(self), serial=(self), microphone=(), geolocation=(), payment=(), usb=(), bluetooth=(), midi=(), display-capture=()";

/** Security headers; scripts run only with this response's nonce, styles only from files. */
function secured(): RequestHandler {
  const headers = helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: [
          "'self'",
          (_request, response) =>
            `'nonce-${(response as unknown as { locals: { nonce: string } }).locals.nonce}'`,
        ],
        // The code editor makes its style sheet in the page.
        styleSrc: [
          "'self'",
          (_request, response) =>
            `'nonce-${(response as unknown as { locals: { nonce: string } }).locals.nonce}'`,
        ],
        imgSrc: ["'self'", "data:", "blob:"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        mediaSrc: ["'self'", "blob:"],
        manifestSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    // Not no-referrer: with it a browser sends `Origin: null` with a form that works before the script has loaded.
    referrerPolicy: { policy: "same-origin" },
    // Said below, and only where it came over https.
    strictTransportSecurity: false,
  });
  return (request, response, next) => {
    response.locals.nonce = randomBytes(16).toString("base64");
    response.setHeader("Permissions-Policy", PERMISSIONS);
    if (request.secure) response.setHeader("Strict-Transport-Security", `max-age=${SECURE_S}`);
    headers(request, response, next);
  };
}

/** What each door takes at most, in bytes; the first that fits the path. A page that asks for nothing more takes a small form. */
const MOST_BYTES: readonly (readonly [door: RegExp, bytes: number])[] = [
  // Before anybody is known: a name, a PIN, a place.
  [/^\/(sign-in|sign-out|first-run|trust|lock|unlock)/, 8_000],
  // A job comes with all its pictures.
  [/^\/jobs\/import/, 100_000_000],
  [/^\/jobs\/[^/]+\/photos/, 25_000_000],
  // Two hundred facts, each with a read-out.
  [/^\/jobs\/[^/]+\/facts/, 5_000_000],
  // A book as a form writes it.
  [/^\/drafts\//, 16_000_000],
  [/^\/books(\.data)?$/, 16_000_000],
  [/^\/shelf\/prices/, 10_000_000],
];
const MOST_OF_A_FORM = 300_000;

/**
 * Nothing is read before it is known how much it is. A body without a length could go on for ever, and no browser sends one: it is refused. The
 * server itself reads no further than the length that was told.
 */
const limited: RequestHandler = (request, response, next) => {
  if (request.get("transfer-encoding") !== undefined) {
    return refuse(request, response, 411, "Say how long it is.");
  }
  const length = Number(request.get("content-length") ?? 0);
  const most = MOST_BYTES.find(([door]) => door.test(request.path))?.[1] ?? MOST_OF_A_FORM;
  if (length <= most) return next();
  refuse(request, response, 413, "That is too much at once.");
};

/** So long a body that is refused is let in, unread, before the answer: a connection closed amid it would be all that its sender is told. */
const LINGER_MS = 2_000;

function refuse(request: Request, response: Response, status: number, words: string): void {
  const answer = (): void => {
    clearTimeout(patience);
    if (response.headersSent) return;
    response.status(status).set("Connection", "close").type("text").send(words);
  };
  const patience = setTimeout(answer, LINGER_MS);
  request.once("end", answer).once("close", answer).resume();
}

/** Whatever changes something must come from a page of ours: a foreign or a missing origin is refused. */
function sameOrigin(log: Logger): RequestHandler {
  return (request, response, next) => {
    if (request.method === "GET" || request.method === "HEAD") return next();
    const origin = request.get("origin");
    if (origin && URL.canParse(origin) && new URL(origin).host === request.get("host")) return next();
    log.warn({ path: request.path, origin }, "refused: foreign origin");
    response.status(403).type("text").send("This request did not come from a page of Yard Key.");
  };
}

function failed(log: Logger): ErrorRequestHandler {
  return (error: unknown, _request, response, next) => {
    log.error({ err: error }, "request failed");
    if (response.headersSent) return next(error);
    response
      .status(500)
      .type("text")
      .send("Something went wrong in Yard Key; nothing was changed. Try again.");
  };
}
