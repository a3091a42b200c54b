// One web process: `DATABASE_URL`, which may be several with spaces between them (docs/running.md), `PORT`, optionally `HOST`, `HOSTS`, `HTTPS_PORT` with `TLS_CERT`, `TLS_KEY` and `AUTHORITY`, `GAUGE_URL`,
// `SCAN_TOOL_URL`, `PRINTER_URL`, `SUPPLIERS`, `YARD_KEY_GALLERY`. Needs the build and a migrated database.
import { readFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import { createServer as createTlsServer } from "node:https";
import { resolve } from "node:path";
import { pathToFileURL } from "node:url";
import pino from "pino";
import type { createApp as CreateApp } from "../app/server/server";

const log = pino({
  name: "yard-key",
  level: process.env.LOG_LEVEL ?? "info",
  redact: ["*.pin", "*.secret", "*.cookie", "*.password"],
});
const { DATABASE_URL: databaseUrl, PORT, HOST = "127.0.0.1" } = process.env;
const {
  GAUGE_URL: gaugeUrl = "",
  SCAN_TOOL_URL: scanToolUrl = "",
  PRINTER_URL: printerUrl = "",
  SUPPLIERS: addresses = "",
  SUPPLIERS_RETRY: retryAfter = "20",
  SUPPLIERS_ASK: askEvery = "3600",
} = process.env;
const { HTTPS_PORT = "", TLS_CERT = "", TLS_KEY = "", AUTHORITY = "" } = process.env;
if (!databaseUrl || !PORT) throw new Error("DATABASE_URL and PORT must be set");

// The path is put together so that the type checker does not look for a build that may not be there yet.
const built = pathToFileURL(resolve("build/server/index.js")).href;
const { createApp } = (await import(built)) as { createApp: typeof CreateApp };
const { app, close } = await createApp({
  databaseUrl,
  gaugeUrl,
  scanToolUrl,
  printerUrl,
  suppliers: { addresses, retryAfter: Number(retryAfter), askEvery: Number(askEvery) },
  gallery: process.env.YARD_KEY_GALLERY === "1",
  hosts: (process.env.HOSTS ?? "").split(/[\s,]+/).filter(Boolean),
  firstRunCode: process.env.FIRST_RUN_CODE ?? "",
  https: HTTPS_PORT
    ? {
        port: Number(HTTPS_PORT),
        httpPort: Number(PORT),
        authority: AUTHORITY ? readFileSync(AUTHORITY, "utf8") : null,
      }
    : null,
  log,
});
const servers: Server[] = [createServer(app)];
servers[0]?.listen(Number(PORT), HOST, () => log.info({ port: Number(PORT) }, "listening"));
if (HTTPS_PORT) {
  const secure = createTlsServer({ cert: readFileSync(TLS_CERT), key: readFileSync(TLS_KEY) }, app);
  secure.listen(Number(HTTPS_PORT), HOST, () => log.info({ port: Number(HTTPS_PORT) }, "listening, https"));
  servers.push(secure);
}

// A kept connection that is closed in the moment it is used again loses a request: they are kept for longer than people pause.
for (const server of servers) server.keepAliveTimeout = 30_000;

// Whoever keeps this process alive is gone: end, so that the next start finds the port free.
process.once("disconnect", () => process.exit(0));
for (const signal of ["SIGTERM", "SIGINT"] as const) {
  process.once(signal, () => {
    for (const server of servers) {
      server.close();
      server.closeAllConnections();
    }
    void close().then(() => process.exit(0));
  });
}
