import { once } from "node:events";
import { createServer, type Server } from "node:http";
import { connect, type AddressInfo } from "node:net";
import { setTimeout as pause } from "node:timers/promises";
import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import express from "express";
import { createCookie } from "react-router";
import { sealedBy, strangersInTurn } from "./strangers";

const KEY = "a key";
const isSealed = sealedBy(KEY);
const sealed = async (name: string, key = KEY): Promise<string> =>
  (await createCookie(name, { secrets: [key] }).serialize("0195f2c0-0000-7000-8000-000000000001")).split(
    ";",
  )[0] ?? "";

it("knows a session sealed here, among other cookies, and none that was made up", async () => {
  for (const name of ["yard-key", "__Host-yard-key"]) {
    const own = await sealed(name);
    expect(await isSealed(own)).toBe(true);
    expect(await isSealed(`theme=lamp; ${own}; other=1`)).toBe(true);
    expect(await isSealed(await sealed(name, "another"))).toBe(false);
    expect(await isSealed(own.slice(0, -3))).toBe(false);
    expect(await isSealed(own.replace("=", "=x"))).toBe(false);
  }
  expect(await isSealed(await sealed("else"))).toBe(false);
  for (const odd of ["", "yard-key", "yard-key=", "yard-key=.", "yard-key=%E0%A4%A", "yard-key=a.b.c"])
    expect([odd, await isSealed(odd)]).toEqual([odd, false]);
});

describe("strangers", () => {
  let server: Server;
  let url: string;
  let within = 0;
  let most = 0;
  /** What the slow ones wait for: they hold their places until the test lets them go. */
  let letGo = (): void => {};
  const gone = new Promise<void>((done) => (letGo = done));
  beforeAll(async () => {
    const app = express();
    app.use(strangersInTurn(KEY));
    app.use(express.text({ type: () => true }), async (request, response) => {
      const slow = request.path === "/slow";
      if (slow) most = Math.max(most, ++within);
      if (slow) await gone;
      if (slow) within--;
      response.send(`got ${typeof request.body === "string" ? request.body.length : 0}`);
    });
    server = createServer(app).listen(0, "127.0.0.1");
    await once(server, "listening");
    url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterAll(() => {
    server.closeAllConnections();
    server.close();
  });

  it("are let in two at a time; somebody who is signed in does not wait behind them", async () => {
    const asked = Array.from({ length: 20 }, () => fetch(`${url}/slow`, { method: "POST", body: "x=1" }));
    while (most < 2) await pause(5);
    // Both places are held: whoever had to wait for one would wait here for ever.
    const own = await fetch(`${url}/quick`, { headers: { cookie: await sealed("yard-key") } });
    expect([own.status, most]).toEqual([200, 2]);
    letGo();
    const answers = await Promise.all(asked);
    expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([200]));
    expect(await answers[0]?.text()).toBe("got 3");
    expect(most).toBe(2);
  });

  it("hold no place by sending slowly: others are let in while sixty never end", async () => {
    const { port } = new URL(url);
    const slow = Array.from({ length: 60 }, () => {
      const socket = connect(Number(port), "127.0.0.1");
      socket.on("error", () => {});
      socket.write("POST /quick HTTP/1.1\r\nHost: localhost\r\nContent-Length: 9000\r\n\r\nstaff=");
      return socket;
    });
    await pause(100);
    const answer = await fetch(`${url}/quick`, { method: "POST", body: "y".repeat(7_000) });
    expect([answer.status, await answer.text()]).toEqual([200, "got 7000"]);
    for (const socket of slow) socket.destroy();
  });

  it("wait while something is worked on for the house, but not for what never ends", async () => {
    const order: string[] = [];
    let finish = (): void => {};
    const held = new Promise<void>((done) => (finish = done));
    const doors = await Promise.all(
      [60_000, 20].map(async (brief) => {
        const app = express();
        app.use(strangersInTurn(KEY, brief), async (request, response) => {
          const who = request.get("cookie") ? "house" : "stranger";
          order.push(`${who} asks`);
          if (who === "house") await held;
          order.push(`${who} is answered`);
          response.send(who);
        });
        const own = createServer(app).listen(0, "127.0.0.1");
        await once(own, "listening");
        return { own, url: `http://127.0.0.1:${(own.address() as AddressInfo).port}` };
      }),
    );
    const [waits, streams] = doors;
    const headers = { cookie: await sealed("yard-key") };
    // A stream that never ends holds nobody up for long.
    const stream = fetch(streams?.url ?? "", { headers });
    while (order.length < 1) await pause(5);
    expect(await (await fetch(streams?.url ?? "")).text()).toBe("stranger");
    order.length = 0;
    const house = fetch(waits?.url ?? "", { headers });
    while (order.length < 1) await pause(5);
    const stranger = fetch(waits?.url ?? "");
    await pause(100);
    expect(order).toEqual(["house asks"]);
    finish();
    await Promise.all([stream, house, stranger]);
    expect(order.indexOf("stranger asks")).toBeGreaterThan(order.indexOf("house is answered"));
    for (const { own } of doors) {
      own.closeAllConnections();
      own.close();
    }
  });
});
