import { createHmac } from "node:crypto";
import { expect, it } from "@jest/globals";
import { voucherFor, vouchedFor } from "./voucher";

const [MIRA, EDDA] = ["01900000-0000-7000-8000-000000000001", "01900000-0000-7000-8000-000000000002"];
const NOW = Date.parse("2026-05-04T08:00:00Z");
const DAY = 24 * 3600 * 1000;

it("names the person it was made for, and nobody else", () => {
  const voucher = voucherFor("key", MIRA, NOW);
  expect(vouchedFor("key", voucher, NOW)).toEqual({ staff: MIRA, holds: true });
  const [, at = "", sealed = ""] = voucher.split(".");
  for (const wrong of [
    voucher.replace(MIRA, EDDA),
    `${MIRA}.${(NOW + DAY).toString(36)}.${sealed}`,
    `${MIRA}..${sealed}`,
    `${MIRA}.${sealed}`,
    `${MIRA}.${at}`,
    `${voucher}.${at}`,
    voucher.slice(0, -1),
    `${voucher}x`,
    MIRA,
    "",
    "a.b",
    voucherFor("other key", MIRA, NOW),
  ])
    expect([wrong, vouchedFor("key", wrong, NOW)]).toEqual([wrong, null]);
});

it("ends after a week, by a clock that is ahead or behind", () => {
  const voucher = voucherFor("key", MIRA, NOW);
  for (const [after, holds] of [
    [6.9 * DAY, true],
    [7.1 * DAY, false],
    [-6.9 * DAY, true],
    [-7.1 * DAY, false],
  ] as const)
    expect([after, vouchedFor("key", voucher, NOW + after)]).toEqual([after, { staff: MIRA, holds }]);
});

it("of before it had an end says whose it is, and holds no more", () => {
  const old = `${MIRA}.${createHmac("sha256", "key").update(`said by ${MIRA}`).digest("base64url")}`;
  expect(vouchedFor("key", old, NOW)).toEqual({ staff: MIRA, holds: false });
});
