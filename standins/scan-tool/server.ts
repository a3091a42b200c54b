// The simulated scan tool: `PORT=4401 node --import tsx standins/scan-tool/server.ts`. GET /read?unit=…&job=…&item=… answers plain text; POST /vehicle
// {job, control?, pressure?, routine?} answers how the vehicle on the lift stands, as JSON. docs/formats.md.
import { createServer } from "node:http";
import { stand, told } from "../stand";
import { atLift, type Ask } from "../vehicle/lift";
import { readOut } from "./read-out";

const server = createServer((request, response) => {
  const { pathname, searchParams } = new URL(request.url ?? "/", "http://scan-tool");
  if (request.method === "POST" && pathname === "/vehicle") return told<Ask>(request, response, atLift);
  const [unit, job, item] = ["unit", "job", "item"].map((name) => searchParams.get(name) ?? "");
  if (request.method !== "GET" || pathname !== "/read" || !unit || !job || !item) {
    response.writeHead(404).end();
    return;
  }
  response.writeHead(200, { "Content-Type": "text/plain; charset=utf-8" }).end(readOut(unit, job, item));
});
stand(server, 4401);
