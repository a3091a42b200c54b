// npm run backup [FOLDER]: a copy of the shop's database in one file, also while it works.
import { stat } from "node:fs/promises";
import { join } from "node:path";
import { backup, NoCopy } from "./copy";
import { shopDatabase } from "./cluster";

const folder = process.argv[2] ?? join(process.cwd(), ".yard-key", "copies");
const { url, stop } = await shopDatabase();
try {
  console.log("· copying …");
  const { file, manifest } = await backup(url, folder);
  const { size } = await stat(file);
  console.log(`\n${file}`);
  console.log(
    `${(size / 1_000_000).toFixed(1)} MB: ${manifest.rows.job ?? 0} jobs, ${manifest.rows.fact ?? 0} facts, ${manifest.rows.photo ?? 0} pictures, as of ${manifest.made}.`,
  );
} catch (error) {
  if (!(error instanceof NoCopy)) throw error;
  console.error(`\n${error.message}`);
  process.exitCode = 1;
} finally {
  await stop();
}
