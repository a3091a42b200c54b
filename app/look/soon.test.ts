import { afterEach, beforeEach, describe, expect, it, jest } from "@jest/globals";
import { createElement } from "react";
import { Writable } from "node:stream";
import { renderToPipeableStream } from "react-dom/server";
import { soon } from "./soon";

const Rail = ({ stage }: { stage: string }) => createElement("nav", null, createElement("b", null, stage));

/** What the server sends of an element, as app/entry.server.tsx sends it: when all of it is there. */
const sent = (element: ReturnType<typeof createElement>): Promise<string> =>
  new Promise((resolve, reject) => {
    const parts: string[] = [];
    const whole = new Writable({
      write(part: Buffer, _, done) {
        parts.push(part.toString());
        done();
      },
      final(done) {
        resolve(parts.join(""));
        done();
      },
    });
    const { pipe } = renderToPipeableStream(element, { onAllReady: () => void pipe(whole), onError: reject });
  });

describe("a part of a page that comes after it", () => {
  it("is drawn by the server where it stands, with nothing to be put in its place later", async () => {
    const part = soon(() => Promise.resolve({ Rail })).part("Rail");
    const html = await sent(
      createElement("main", null, createElement(part, { stage: "Choose" }), "the work"),
    );
    expect(html.replace(/<!--.*?-->/g, "")).toBe("<main><nav><b>Choose</b></nav>the work</main>");
  });

  describe("whose script does not come", () => {
    beforeEach(() => void jest.useFakeTimers());
    afterEach(() => void jest.useRealTimers());

    it("holds nothing up for long, and is asked for until it is there", async () => {
      let asked = 0;
      const frame = soon(() => (++asked < 4 ? Promise.reject(new Error("away")) : Promise.resolve({ Rail })));
      let loaded = "";
      void frame.beside(Promise.resolve("the job")).then((job) => (loaded = job));
      await jest.advanceTimersByTimeAsync(1_900);
      expect([loaded, asked]).toEqual(["", 1]);
      await jest.advanceTimersByTimeAsync(200);
      expect([loaded, asked]).toEqual(["the job", 2]);
      await jest.advanceTimersByTimeAsync(10_000);
      expect(asked).toBe(4);
    });

    it("is told what went wrong with the page itself at once", async () => {
      const frame = soon(() => Promise.reject(new Error("away")));
      await expect(frame.beside(Promise.reject(new Error("no such job")))).rejects.toThrow("no such job");
    });
  });
});
