import { randomBytes, scrypt, timingSafeEqual } from "node:crypto";
import pLimit from "p-limit";

/** scrypt with N = 2^15, r = 8, p = 1: 32 MiB and about 100 ms on a bench PC. The parameters are kept with each hash. */
const PARAMETERS = { N: 1 << 15, r: 8, p: 1 };
const KEY_BYTES = 32;
/**
 * Two at once, the rest in a queue: files and name look-ups share the four threads this is done on, and somebody who tries many secrets at a
 * time must not keep them all. Who comes when the queue is long is sent away at once.
 */
const queue = pLimit(2);
const MOST_WAITING = 40;

/** Thrown when too many secrets are being looked at; nothing was. */
export class Busy extends Error {
  constructor() {
    super("too many sign-ins at once");
  }
}

async function derive(secret: string, salt: Buffer, N: number, r: number, p: number): Promise<Buffer> {
  if (queue.pendingCount >= MOST_WAITING) throw new Busy();
  return queue(
    () =>
      new Promise<Buffer>((resolve, reject) => {
        scrypt(secret.normalize("NFKC"), salt, KEY_BYTES, { N, r, p, maxmem: 256 * N * r }, (error, key) =>
          error ? reject(error) : resolve(key),
        );
      }),
  );
}

/** @returns `scrypt$N$r$p$salt$hash`, safe to keep. */
export async function hashSecret(secret: string): Promise<string> {
  const { N, r, p } = PARAMETERS;
  const salt = randomBytes(16);
  const key = await derive(secret, salt, N, r, p);
  return ["scrypt", N, r, p, salt.toString("base64"), key.toString("base64")].join("$");
}

/** @returns whether `secret` is the one that was hashed; compares in constant time. */
export async function secretMatches(secret: string, hash: string): Promise<boolean> {
  const [kind, N, r, p, salt, key] = hash.split("$");
  if (kind !== "scrypt" || !salt || !key) return false;
  const expected = Buffer.from(key, "base64");
  const actual = await derive(secret, Buffer.from(salt, "base64"), Number(N), Number(r), Number(p));
  return timingSafeEqual(actual, expected);
}
