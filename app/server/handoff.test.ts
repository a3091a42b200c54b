import { expect, it } from "@jest/globals";
import fc from "fast-check";
import { runInNewContext } from "node:vm";
import { handedOn } from "./handoff";

const SCRIPT = /^<script nonce="n0nce">([^<>&]*)<\/script>$/;

/** What the page’s script is handed by this piece of a page. */
function read(piece: string): string[] {
  const script = SCRIPT.exec(piece)?.[1] ?? "";
  const told: string[] = [];
  const streamController = { enqueue: (text: string) => told.push(text), close: () => told.push("closed") };
  runInNewContext(script, { window: { __reactRouterContext: { streamController } } });
  return told;
}

it.each(["</script><script>alert(1)</script>", "<!--", "&lt;", "\u2028\u2029", 'a \\ and a "', "…’"])(
  "hands on %j as it is, and nothing of it is read as the page’s own",
  (text) => expect(read(handedOn(text, "n0nce"))).toEqual([text, "closed"]),
);

it("hands on whatever was typed", () => {
  fc.assert(
    fc.property(fc.string({ unit: "binary" }), (text) => {
      expect(read(handedOn(text, "n0nce"))).toEqual([text, "closed"]);
    }),
  );
});
