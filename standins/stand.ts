import type { Server } from "node:http";

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
