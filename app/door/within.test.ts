import { expect, it } from "@jest/globals";
import { within } from "./within";

it("leads to places of our own, and to no other host however it is written", () => {
  for (const [to, where] of [
    ["/jobs/1030?show=found#x", "/jobs/1030?show=found#x"],
    ["/", "/"],
    [null, "/"],
    ["", "/"],
    ["jobs", "/"],
    ["https://evil.example/", "/"],
    ["//evil.example", "/"],
    ["/\\evil.example", "/"],
    ["/\t/evil.example", "/"],
    ["/\n/evil.example", "/"],
    ["/.//evil.example", "/"],
    ["/x/..//evil.example", "/"],
    ["/%2f/evil.example", "/%2f/evil.example"],
    ["javascript:alert(1)", "/"],
  ] as const) {
    expect([to, within(to)]).toEqual([to, where]);
    expect(new URL(within(to), "http://shop.lan").host).toBe("shop.lan");
  }
});
