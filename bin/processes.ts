// Builds the small processes that run beside the web application (the web process itself and the stand-ins) into plain JavaScript: started
// from there, each is up in a fraction of the time that translating its TypeScript takes.
import { build } from "vite";

const here = (folder: string): string => new URL(folder, import.meta.url).pathname;

await build({
  configFile: false,
  resolve: { alias: { "~core": here("../core"), "~store": here("../store"), "~": here("../app") } },
  logLevel: "warn",
  build: {
    ssr: true,
    outDir: "build/processes",
    emptyOutDir: true,
    rollupOptions: {
      input: {
        web: "bin/web.ts",
        beside: "app/server/beside.worker.ts",
        gauge: "standins/gauge/server.ts",
        "scan-tool": "standins/scan-tool/server.ts",
        printer: "standins/printer/server.ts",
        supplier: "standins/supplier/server.ts",
      },
    },
  },
});
