// The simulated scan tool: `PORT=4401 node --import tsx standins/scan-tool/server.ts`. GET /read?unit=…&job=…&item=… answers plain text.
import { createServer } from "node:http";
import { stand } from "../stand";
import { readOut } from "./read-out";

const server = createServer((request, response) => {
  const { pathname, searchParams } = new URL(request.url ?? "/", "http://scan-tool");
  const [unit, job, item] = ["unit", "job", "item"].map((name) => searchParams.get(name) ?? "");
  if (request.method !== "GET" || pathname !== "/read" || !unit || !job || !item) {
    response.writeHead(404).end();
    return;
  }
  response.writeHead(200, { "Content-Type": "text/plain; charset=utf-8" }).end(readOut(unit, job, item));
});
stand(server, 4401);
