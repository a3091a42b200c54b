import { mkdirSync } from "node:fs";
import { stat } from "node:fs/promises";
import { openPool } from "../store/database";
import { readHouse, setHouse } from "../store/house";
import { backup, copiesIn, hasRoom, keepNewest } from "./copy";

const HOUR = 3_600_000;
const AGE = 24 * HOUR;

/**
 * Sees to it that there is a copy no older than a day, and that only so many are kept as the house wants; what became of it stands in the house's
 * settings, where every page can see it.
 *
 * @returns whether a copy was made.
 */
export async function copyWhenDue(url: string, folder: string): Promise<boolean> {
  const pool = openPool(url, () => {});
  try {
    const { copiesKept } = await readHouse(pool);
    try {
      mkdirSync(folder, { recursive: true, mode: 0o700 });
      const last = copiesIn(folder).at(-1);
      if (last && Date.now() - (await stat(last)).mtimeMs < AGE) return false;
      if (!(await hasRoom(folder))) throw new Error("the disk is nearly full");
      const { file, manifest } = await backup(url, folder);
      const { size } = await stat(file);
      await setHouse(pool, { copy: { at: manifest.made, bytes: size }, copyProblem: "" }, "Yard Key");
      await keepNewest(folder, copiesKept);
      return true;
    } catch (error) {
      const words = error instanceof Error ? error.message.split("\n")[0] : String(error);
      await setHouse(pool, { copyProblem: words ?? "" }, "Yard Key");
      return false;
    }
  } finally {
    await pool.end();
  }
}

/**
 * Looks every hour, from now on.
 *
 * @param where the database that is written to at that hour.
 * @returns what stops it.
 */
export function nightly(where: () => Promise<string>, folder: string): () => Promise<void> {
  const look = (): void =>
    void where()
      .then((url) => copyWhenDue(url, folder))
      .catch(() => {});
  look();
  const timer = setInterval(look, HOUR);
  return () => {
    clearInterval(timer);
    return Promise.resolve();
  };
}
