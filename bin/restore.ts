// npm run restore FILE: puts a copy back. What was there is kept under another name.
import { restore, withShop } from "./copy";

const [file] = process.argv.slice(2);
if (!file) {
  console.error("Which copy? npm run restore FILE");
  process.exit(2);
}
await withShop(async (url) => {
  console.log("· checking the file, reading it in beside what is there …");
  const { manifest, rows, before } = await restore(url, file);
  console.log(`\nBack as of ${manifest.made}:\n`);
  for (const [table, many] of Object.entries(rows)) console.log(`  ${table.padEnd(20)} ${many}`);
  console.log(`\nWhat was there is kept in the database ${before}. Everybody signs in anew.`);
});
