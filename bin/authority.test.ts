import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { X509Certificate } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync, statSync } from "node:fs";
import { createServer, request } from "node:https";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { localTls } from "./authority";

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "yard-key-authority-"));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const DAY = 86_400_000;
const names = ["localhost", "127.0.0.1", "bench.local"];

describe("the shop's authority", () => {
  it("signs a certificate that a client who trusts it accepts, and no other client does", async () => {
    const { key, cert, authority } = await localTls(folder, names);
    const server = createServer({ key, cert }, (_request, response) => response.end("here")).listen(
      0,
      "127.0.0.1",
    );
    await new Promise((resolve) => server.once("listening", resolve));
    const { port } = server.address() as AddressInfo;
    const get = (host: string, ca?: string): Promise<string> =>
      new Promise((resolve, reject) => {
        request({ host: "127.0.0.1", servername: host, port, ca, agent: false }, (response) => {
          response.on("data", (part: Buffer) => resolve(part.toString()));
        })
          .on("error", (error: NodeJS.ErrnoException) => reject(new Error(error.code)))
          .end();
      });
    expect(await get("bench.local", authority ?? "")).toBe("here");
    await expect(get("bench.local")).rejects.toThrow(/UNABLE_TO|SELF_SIGNED/);
    await expect(get("elsewhere.local", authority ?? "")).rejects.toThrow("ERR_TLS_CERT_ALTNAME_INVALID");
    server.close();
  });

  it("is believed for a shop's own names and addresses alone", async () => {
    const other = mkdtempSync(join(tmpdir(), "yard-key-authority-"));
    try {
      await localTls(other, names);
      for (const [name, why] of [
        ["tablet.lan", "here"],
        ["bench-2.local", "here"],
        ["bank.example", "permitted subtree violation"],
      ] as const) {
        // As whoever had the key would: the certificate for this name, by this authority.
        rmSync(join(other, "server.crt"));
        const { key, cert, authority } = await localTls(other, [name]);
        const server = createServer({ key, cert }, (_request, response) => response.end("here")).listen(
          0,
          "127.0.0.1",
        );
        await new Promise((resolve) => server.once("listening", resolve));
        const { port } = server.address() as AddressInfo;
        const told = await new Promise<string>((resolve) => {
          request(
            { host: "127.0.0.1", servername: name, port, ca: authority ?? "", agent: false },
            (response) => {
              response.on("data", (part: Buffer) => resolve(part.toString()));
            },
          )
            .on("error", (error: NodeJS.ErrnoException) => resolve(error.message))
            .end();
        });
        server.close();
        expect([name, told]).toEqual([name, why]);
      }
    } finally {
      rmSync(other, { recursive: true, force: true });
    }
  });

  it("is made once; the server's certificate anew for other addresses and before it runs out", async () => {
    const first = await localTls(folder, names);
    expect(await localTls(folder, names)).toEqual(first);
    const moved = await localTls(folder, [...names, "192.168.1.20"]);
    expect(moved.authority).toBe(first.authority);
    expect(moved.cert).not.toBe(first.cert);
    expect(new X509Certificate(moved.cert).subjectAltName).toContain("192.168.1.20");
    const later = await localTls(folder, [...names, "192.168.1.20"], new Date(Date.now() + 370 * DAY));
    expect(later.cert).not.toBe(moved.cert);
    expect(new X509Certificate(later.cert).verify(new X509Certificate(first.authority ?? "").publicKey)).toBe(
      true,
    );
  });

  it("may sign servers and nothing that signs again, and keeps its key to itself", async () => {
    const { cert, authority } = await localTls(folder, names);
    const [server, own] = [new X509Certificate(cert), new X509Certificate(authority ?? "")];
    expect([own.ca, server.ca]).toEqual([true, false]);
    expect(new Date(server.validTo).getTime() - new Date(server.validFrom).getTime()).toBeLessThan(398 * DAY);
    expect(statSync(join(folder, "authority.key")).mode & 0o077).toBe(0);
    expect(readFileSync(join(folder, "authority.key"), "utf8")).toContain("PRIVATE KEY");
  });
});
