import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";

const here = (folder: string): string => new URL(folder, import.meta.url).pathname;

/**
 * Which script a page has in one file with others: first what every page has, then what every page within the door has, then what every page of a job
 * has. Left to itself the bundler makes a hundred small files of a page.
 */
const together = [
  { name: "base", test: /app.(root|entry\.client)\.tsx/, priority: 3 },
  { name: "inside", test: /app.door.(inside|sign-in)\.tsx/, priority: 2 },
  { name: "job", test: /app.job.job\.tsx/, priority: 1 },
];

export default defineConfig({
  plugins: [tailwindcss(), reactRouter()],
  resolve: { alias: { "~core": here("./core"), "~store": here("./store"), "~": here("./app") } },
  worker: { format: "es" },
  environments: {
    client: { build: { rolldownOptions: { output: { codeSplitting: { groups: together } } } } },
    ssr: { build: { rollupOptions: { input: "./app/server/server.ts" } } },
  },
});
