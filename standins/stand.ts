import type { IncomingMessage, Server, ServerResponse } from "node:http";

/** Listens on loopback until whoever started it is gone. */
export function stand(server: Server, port: number): void {
  server.listen(Number(process.env.PORT ?? port), "127.0.0.1");
  process.once("disconnect", () => process.exit(0));
  for (const signal of ["SIGTERM", "SIGINT"] as const) {
    process.once(signal, () => {
      server.close();
      server.closeAllConnections();
      process.exit(0);
    });
  }
}

/** Answers a question sent as JSON. */
export function told<T>(
  request: IncomingMessage,
  response: ServerResponse,
  answer: (given: T) => object,
): void {
  let body = "";
  request.on("data", (chunk: Buffer) => {
    body += chunk.toString();
    if (body.length > 10_000) request.destroy();
  });
  request.on("end", () => {
    try {
      response.writeHead(200).end(JSON.stringify(answer(JSON.parse(body) as T)));
    } catch {
      response.writeHead(400).end('{"problem":"send JSON as asked for"}');
    }
  });
}
