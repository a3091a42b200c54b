// Builds the service worker into the finished build, with the list of its files.
import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { build } from "vite";

const CLIENT = "build/client";
const assets = readdirSync(join(CLIENT, "assets")).map((name) => `assets/${name}`);
const plain = readdirSync(CLIENT).filter((name) => /\.(svg|png|webmanifest)$/.test(name));
const digest = (text: string | Buffer): string =>
  createHash("sha256").update(text).digest("hex").slice(0, 16);

// Names of assets carry their contents; the large ones that few pages want are fetched when they are wanted.
const files = [
  ...assets.map((url) => ({ url: `/${url}`, revision: null })),
  ...plain.map((url) => ({ url: `/${url}`, revision: digest(readFileSync(join(CLIENT, url))) })),
  { url: "/offline", revision: digest(assets.join()) },
];

await build({
  configFile: false,
  logLevel: "error",
  define: { FILES: JSON.stringify(files), "process.env.NODE_ENV": '"production"' },
  build: {
    outDir: CLIENT,
    emptyOutDir: false,
    copyPublicDir: false,
    rollupOptions: {
      input: "app/offline/sw.ts",
      output: { format: "iife", entryFileNames: "sw.js" },
    },
  },
});
