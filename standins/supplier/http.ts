// A simulated supplier over HTTP and JSON: see docs/formats.md.
import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import { setTimeout as pause } from "node:timers/promises";
import { WELL, type Behaviour, type Trade, type Wanted } from "./trade";

const MOST = 1_000_000;

async function bodyOf(request: IncomingMessage): Promise<Record<string, unknown>> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > MOST) throw new Error("too long");
    parts.push(part);
  }
  return parts.length === 0 ? {} : (JSON.parse(Buffer.concat(parts).toString()) as Record<string, unknown>);
}

interface Answer {
  status: number;
  body: unknown;
}

async function answerTo(trade: Trade, request: IncomingMessage): Promise<Answer> {
  const { pathname } = new URL(request.url ?? "/", "http://supplier");
  const key = String(request.headers["idempotency-key"] ?? "");
  const [, of = "", then = ""] = /^\/orders\/([\w-]+)(\/cancel)?$/.exec(pathname) ?? [];
  if (request.method === "POST" && pathname === "/behave") {
    trade.behaviour = { ...WELL, ...((await bodyOf(request)) as Partial<Behaviour>) };
    return { status: 200, body: trade.behaviour };
  }
  if (request.method === "GET" && pathname === "/taken") return { status: 200, body: { count: trade.count } };
  const { down, slow } = trade.behaviour;
  if (slow > 0) await pause(slow);
  if (down) return { status: 503, body: { why: "closed for now" } };
  if (request.method === "POST" && pathname === "/orders") {
    const { lines } = (await bodyOf(request)) as { lines?: Wanted[] };
    if (key === "" || !lines?.length) return { status: 400, body: { why: "no key, or no lines" } };
    const answer = trade.place(key, lines);
    return { status: "why" in answer ? 422 : 201, body: answer };
  }
  if (request.method === "POST" && then) {
    const why = trade.cancel(of, key, (await bodyOf(request)) as unknown as Wanted);
    return why ? { status: 409, body: { why } } : { status: 200, body: {} };
  }
  const told = request.method === "GET" && of ? trade.told(of) : null;
  return told ? { status: 200, body: told } : { status: 404, body: { why: "no such order" } };
}

async function handle(trade: Trade, request: IncomingMessage, response: ServerResponse): Promise<void> {
  const { status, body } = await answerTo(trade, request).catch((): Answer => ({
    status: 400,
    body: { why: "not understood" },
  }));
  if (trade.behaviour.losesAnswers && request.url !== "/behave") {
    response.destroy();
    return;
  }
  response.writeHead(status, { "Content-Type": "application/json" }).end(JSON.stringify(body));
}

/** A server that answers for a supplier. */
export const supplierServer = (trade: Trade): Server =>
  createServer((request, response) => void handle(trade, request, response));
