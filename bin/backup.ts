// npm run backup [FOLDER]: a copy of the shop's database in one file, also while it works.
import { stat } from "node:fs/promises";
import { join } from "node:path";
import { backup, withShop } from "./copy";

const folder = process.argv[2] ?? join(process.cwd(), ".yard-key", "copies");
await withShop(async (url) => {
  console.log("· copying …");
  const { file, manifest } = await backup(url, folder);
  const { size } = await stat(file);
  console.log(`\n${file}`);
  console.log(
    `${(size / 1_000_000).toFixed(1)} MB: ${manifest.rows.job ?? 0} jobs, ${manifest.rows.fact ?? 0} facts, ${manifest.rows.photo ?? 0} pictures, as of ${manifest.made}.`,
  );
});
