import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { FLAGS } from "./browser";
import { openShop, type Shop } from "./shop";

/** A browser that is asked through its pipe: only so can it be told to install an app. */
class PipedBrowser {
  private readonly profile = mkdtempSync(join(tmpdir(), "yard-key-install-"));
  private readonly process: ChildProcess;
  private readonly waiting = new Map<number, (answer: Answer) => void>();
  private asked = 0;
  private heard = "";

  constructor(url: string) {
    const flags = [
      `--user-data-dir=${this.profile}`,
      "--enable-devtools-pwa-handler",
      "--remote-debugging-pipe",
    ];
    this.process = spawn("/usr/bin/chromium", [...FLAGS, ...flags, url], {
      stdio: ["ignore", "ignore", "ignore", "pipe", "pipe"],
    });
    this.process.stdio[4]?.on("data", (part: Buffer) => {
      const answers = (this.heard + part.toString()).split("\0");
      this.heard = answers.pop() ?? "";
      for (const answer of answers.map((text) => JSON.parse(text) as Answer))
        this.waiting.get(answer.id)?.(answer);
    });
  }

  async ask(method: string, params: object = {}, sessionId?: string): Promise<Record<string, unknown>> {
    const id = ++this.asked;
    const answer = await new Promise<Answer>((resolve) => {
      this.waiting.set(id, resolve);
      const pipe = this.process.stdio[3] as NodeJS.WritableStream;
      pipe.write(`${JSON.stringify({ id, method, params, sessionId })}\0`);
    });
    if (answer.error) throw new Error(`${method}: ${answer.error.message}`);
    return answer.result ?? {};
  }

  async close(): Promise<void> {
    // Closed as a person does: killed, its other processes would go on writing into the profile.
    const ended = new Promise((resolve) => this.process.once("exit", resolve));
    void this.ask("Browser.close").catch(() => {});
    await ended;
    rmSync(this.profile, { recursive: true, force: true, maxRetries: 5 });
  }
}
interface Answer {
  id: number;
  result?: Record<string, unknown>;
  error?: { message: string };
}

let shop: Shop;
let browser: PipedBrowser;

beforeAll(async () => {
  shop = await openShop();
  browser = new PipedBrowser(`${shop.url}/sign-in`);
}, 90_000);
afterAll(async () => {
  await shop.close();
  await browser.close();
});

/** What a script says in a page, once it says something true. */
async function said(session: string, expression: string): Promise<unknown> {
  for (let left = 60; ; left--) {
    // A page that is just being left has nothing to ask for a moment.
    const told = await browser.ask("Runtime.evaluate", { expression }, session).catch((error: unknown) => {
      if (left === 0 || !String(error).includes("execution context")) throw error;
      return null;
    });
    const value = (told as { result: { value?: unknown } } | null)?.result.value;
    if (value || left === 0) return value;
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
}
/** The page that is open besides those known. */
async function openPage(known?: string): Promise<{ id: string; session: string }> {
  for (;;) {
    const { targetInfos } = (await browser.ask("Target.getTargets")) as {
      targetInfos: { targetId: string; type: string }[];
    };
    const id = targetInfos.find(({ type, targetId }) => type === "page" && targetId !== known)?.targetId;
    if (id) {
      const attached = await browser.ask("Target.attachToTarget", { targetId: id, flatten: true });
      return { id, session: attached.sessionId as string };
    }
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
}

it("installs as an app that opens in a window of its own", async () => {
  const page = await openPage();
  expect(await said(page.session, "document.title.includes('Yard Key')")).toBe(true);
  const against = await browser.ask("Page.getInstallabilityErrors", {}, page.session);
  expect(against).toEqual({ installabilityErrors: [] });

  const app = { manifestId: `${shop.url}/` };
  await expect(browser.ask("PWA.launch", app)).rejects.toThrow();
  await browser.ask("PWA.install", { ...app, installUrlOrBundleUrl: `${shop.url}/sign-in` });
  // A person ticks "open in its own window" as it is installed.
  await browser.ask("PWA.changeAppUserSettings", { ...app, displayMode: "standalone" });
  await browser.ask("PWA.launch", app);
  const opened = await openPage(page.id);
  expect(await said(opened.session, "document.title.includes('Yard Key')")).toBe(true);
  expect(await said(opened.session, "matchMedia('(display-mode: standalone)').matches")).toBe(true);
  await browser.ask("PWA.uninstall", app);
});
