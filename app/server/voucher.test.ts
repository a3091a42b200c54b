import { expect, it } from "@jest/globals";
import { voucherFor, vouchedFor } from "./voucher";

const [MIRA, EDDA] = ["01900000-0000-7000-8000-000000000001", "01900000-0000-7000-8000-000000000002"];

it("names the person it was made for, and nobody else", () => {
  const voucher = voucherFor("key", MIRA);
  expect(vouchedFor("key", voucher)).toBe(MIRA);
  const forged = voucher.replace(MIRA, EDDA);
  for (const wrong of [
    forged,
    voucher.slice(0, -1),
    `${voucher}x`,
    MIRA,
    "",
    null,
    "a.b",
    voucherFor("other key", MIRA),
  ])
    expect([wrong, vouchedFor("key", wrong)]).toEqual([wrong, null]);
});
