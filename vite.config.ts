import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";

const here = (folder: string): string => new URL(folder, import.meta.url).pathname;

export default defineConfig({
  plugins: [tailwindcss(), reactRouter()],
  resolve: { alias: { "~core": here("./core"), "~store": here("./store"), "~": here("./app") } },
  worker: { format: "es" },
  environments: {
    ssr: { build: { rollupOptions: { input: "./app/server/server.ts" } } },
  },
});
