// The simulated label printer: `PORT=4402 OUT=folder node --import tsx standins/printer/server.ts`. POST /print takes a PDF or PNG and
// keeps it as a file, as paper would; GET /printed lists the files.
import { mkdirSync, readdirSync, writeFileSync } from "node:fs";
import { createServer } from "node:http";
import { join } from "node:path";
import { stand } from "../stand";

const OUT = process.env.OUT ?? ".yard-key/printed";
const MOST = 5_000_000;
mkdirSync(OUT, { recursive: true });

const server = createServer((request, response) => {
  const { pathname } = new URL(request.url ?? "/", "http://printer");
  const printed = (): string[] => readdirSync(OUT).sort();
  if (request.method === "GET" && pathname === "/printed") {
    response.writeHead(200, { "Content-Type": "application/json" }).end(JSON.stringify(printed()));
    return;
  }
  if (request.method !== "POST" || pathname !== "/print") {
    response.writeHead(404).end();
    return;
  }
  const parts: Buffer[] = [];
  let size = 0;
  request.on("data", (part: Buffer) => {
    size += part.length;
    if (size > MOST) request.destroy();
    else parts.push(part);
  });
  request.on("end", () => {
    const ending = request.headers["content-type"] === "image/png" ? "png" : "pdf";
    const name = `${String(printed().length + 1).padStart(5, "0")}.${ending}`;
    writeFileSync(join(OUT, name), Buffer.concat(parts));
    response.writeHead(200, { "Content-Type": "application/json" }).end(JSON.stringify({ printed: name }));
  });
});
stand(server, 4402);
