import { expect, it } from "@jest/globals";
import { Busy, hashSecret, secretMatches } from "./secret";

it("is known again, whatever way its letters are composed, and no other is", async () => {
  const hash = await hashSecret("Zoë 2580");
  expect(hash).toMatch(/^scrypt\$32768\$8\$1\$/);
  expect(await secretMatches("Zoe\u0308 2580", hash)).toBe(true);
  for (const wrong of ["zoë 2580", "Zoë 258", "", "Zoë 2580 "])
    expect(await secretMatches(wrong, hash)).toBe(false);
  for (const broken of ["", "plain$2580", "scrypt$1$1$1"])
    expect(await secretMatches("2580", broken)).toBe(false);
  expect(await hashSecret("Zoë 2580")).not.toBe(hash);
});

it("many at once wait in a queue, and those beyond it are told at once", async () => {
  const hash = await hashSecret("2580");
  const all = await Promise.allSettled(Array.from({ length: 60 }, () => secretMatches("2580", hash)));
  const refused = all.filter((one) => one.status === "rejected");
  expect(refused.length).toBeGreaterThanOrEqual(60 - 43);
  for (const { reason } of refused) expect(reason).toBeInstanceOf(Busy);
  expect(all.flatMap((one) => (one.status === "fulfilled" ? [one.value] : [])).every(Boolean)).toBe(true);
  // Afterwards it is as before.
  expect(await secretMatches("2580", hash)).toBe(true);
});
