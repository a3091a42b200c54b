// The simulated scan tool: `PORT=4401 node --import tsx standins/scan-tool/server.ts`. GET /read?unit=…&job=…&item=… answers plain text; POST /vehicle
// {job, control?, pressure?, routine?, speeds?} answers how the vehicle on the lift stands, as JSON; GET /vehicle?job=… tells it each second, and at once when
// somebody does something at it, as server-sent events. docs/formats.md.
import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import { stand, told } from "../stand";
import { atLift, type Ask } from "../vehicle/lift";
import { readOut } from "./read-out";

const EVERY_MS = 1_000;
const listening = new Map<ServerResponse, string>();

const tell = (response: ServerResponse, job: string): void =>
  void response.write(`data: ${JSON.stringify(atLift({ job }))}\n\n`);
setInterval(() => {
  for (const [response, job] of listening) tell(response, job);
}, EVERY_MS).unref();

/** How a vehicle stands, told until whoever listens is gone. */
function streamed(request: IncomingMessage, response: ServerResponse, job: string | null): void {
  if (!job) return void response.writeHead(404).end();
  response.writeHead(200, { "Content-Type": "text/event-stream", "Cache-Control": "no-store" });
  listening.set(response, job);
  request.on("close", () => listening.delete(response));
  tell(response, job);
}

/** Does what is asked; who listens to that vehicle hears of it at once. */
function asked(ask: Ask): object {
  const answer = atLift(ask);
  if (ask.control) for (const [response, job] of listening) if (job === ask.job) tell(response, job);
  return answer;
}

const server = createServer((request, response) => {
  const { pathname, searchParams } = new URL(request.url ?? "/", "http://scan-tool");
  if (request.method === "POST" && pathname === "/vehicle") return told<Ask>(request, response, asked);
  if (request.method === "GET" && pathname === "/vehicle")
    return streamed(request, response, searchParams.get("job"));
  const [unit, job, item] = ["unit", "job", "item"].map((name) => searchParams.get(name) ?? "");
  if (request.method !== "GET" || pathname !== "/read" || !unit || !job || !item) {
    response.writeHead(404).end();
    return;
  }
  response.writeHead(200, { "Content-Type": "text/plain; charset=utf-8" }).end(readOut(unit, job, item));
});
stand(server, 4401);
