import { expect, it } from "@jest/globals";
import { isOwnHost } from "./hosts";

it("answers to addresses, private names and its own, and to nobody else's", () => {
  for (const [host, own] of [
    ["127.0.0.1:4310", true],
    ["192.168.1.20:4343", true],
    ["[::1]:4310", true],
    ["localhost", true],
    ["shop-server:4343", true],
    ["bench.local", true],
    ["bench.lan.", true],
    ["shop.example", true],
    ["SHOP.EXAMPLE:443", true],
    ["other.example", false],
    ["local.example", false],
    ["notlocal", true],
    ["evil.notlocal", false],
    ["127.0.0.1.evil.example", false],
    ["localhost@evil.example", false],
    ["a/b", false],
    ["", false],
    ["bad host", false],
  ] as const)
    expect([host, isOwnHost(host, ["shop.example"])]).toEqual([host, own]);
});
