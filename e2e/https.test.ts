import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { request as plain, type IncomingMessage } from "node:http";
import { request as secure } from "node:https";
import { networkInterfaces, tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { localTls } from "../bin/authority";
import { freePort } from "../bin/cluster";
import { up } from "../bin/serve";
import { journey, Person } from "./browser";
import { openShop, type Shop } from "./shop";

let shop: Shop;
let web: ChildProcess;
let folder: string;
let ports: { http: number; https: number };
let authority: string;
/** An address of this machine that is not loopback: the shop's network as a tablet sees it. */
const address = Object.values(networkInterfaces())
  .flatMap((all) => all ?? [])
  .find(({ family, internal }) => family === "IPv4" && !internal)?.address;

beforeAll(async () => {
  shop = await openShop();
  folder = mkdtempSync(join(tmpdir(), "yard-key-tls-"));
  authority = (await localTls(folder)).authority ?? "";
  ports = { http: await freePort(), https: await freePort() };
  web = spawn(process.execPath, ["--import", "tsx", "bin/web.ts"], {
    stdio: ["ignore", "ignore", "inherit"],
    env: {
      ...process.env,
      NODE_OPTIONS: "",
      NODE_ENV: "production",
      LOG_LEVEL: "fatal",
      DATABASE_URL: shop.databaseUrl,
      HOST: "0.0.0.0",
      PORT: `${ports.http}`,
      HTTPS_PORT: `${ports.https}`,
      TLS_CERT: join(folder, "server.crt"),
      TLS_KEY: join(folder, "server.key"),
      AUTHORITY: join(folder, "authority.crt"),
    },
  });
  await up(`http://127.0.0.1:${ports.http}/healthz`, 30_000);
}, 90_000);
afterAll(async () => {
  web.kill("SIGKILL");
  await shop.close();
  rmSync(folder, { recursive: true, force: true });
});

const get = (
  url: string,
  ca?: string,
): Promise<{ status: number; headers: IncomingMessage["headers"]; text: string }> =>
  new Promise((resolve, reject) => {
    const ask = url.startsWith("https") ? secure : plain;
    ask(url, { ca, agent: false }, (response) => {
      let text = "";
      response.on("data", (part: Buffer) => (text += part.toString()));
      response.on("end", () =>
        resolve({ status: response.statusCode ?? 0, headers: response.headers, text }),
      );
    })
      .on("error", reject)
      .end();
  });

it("serves https that a machine which trusts the shop’s authority accepts, and all that an app to install needs", async () => {
  const host = address ?? "127.0.0.1";
  expect((await get(`https://${host}:${ports.https}/sign-in`, authority)).text).toContain("Yard Key");
  await expect(get(`https://${host}:${ports.https}/sign-in`)).rejects.toThrow();
  const manifest = await get(`https://${host}:${ports.https}/yard-key.webmanifest`, authority);
  const { icons, display } = JSON.parse(manifest.text) as { icons: { src: string }[]; display: string };
  expect(display).toBe("standalone");
  for (const { src } of icons)
    expect((await get(`https://${host}:${ports.https}${src}`, authority)).status).toBe(200);
  const worker = await get(`https://${host}:${ports.https}/sw.js`, authority);
  expect([worker.status, worker.headers["cache-control"]]).toEqual([200, "no-cache"]);
});

it("sends everything over the network on to https, but for the page that tells how to trust it", async () => {
  if (!address) throw new Error("this machine has no network address to test with");
  const there = `http://${address}:${ports.http}`;
  const sent = await get(`${there}/jobs/1030?x=1`);
  expect([sent.status, sent.headers.location]).toEqual([
    308,
    `https://${address}:${ports.https}/jobs/1030?x=1`,
  ]);
  const trust = await get(`${there}/trust`);
  expect(trust.status).toBe(200);
  expect(trust.text).toContain(`https://${address}:${ports.https}`);
  expect((await get(`${there}/trust/authority.crt`)).text).toBe(authority);
  // On the machine itself plain http stays: nothing passes a network.
  expect((await get(`http://127.0.0.1:${ports.http}/sign-in`)).status).toBe(200);
});

it("tells with a QR code and a fingerprint how a tablet learns to trust it", async () => {
  const person = await Person.sitDown();
  try {
    await journey("trust", [person], async () => {
      await person.go(`http://127.0.0.1:${ports.http}/trust`);
      await person.see("//h1[.='Bring a tablet to this bench']");
      await person.see("//*[name()='svg'][@role='img']");
      await person.see("//code[contains(., ':')]");
      expect(await person.axe()).toEqual([]);
      await person.shot("test-results/trust.png");
    });
  } finally {
    await person.leave();
  }
});
