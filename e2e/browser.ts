import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as pause } from "node:timers/promises";
import { fileURLToPath } from "node:url";
import { Builder, By, Key, until, type WebDriver, type WebElement } from "selenium-webdriver";
import chrome from "selenium-webdriver/chrome";
import { LEFT } from "../app/door/left";
import { FAST_MS } from "../app/scan/wedge";
import { complaints, type Shop } from "./shop";

/** A machine under load is slow: long enough that only what never comes is missed. */
const PATIENCE = 20_000;
/** How often one looks again, in milliseconds. */
const LOOK_AGAIN = 40;

/** Without a monitor, and asking nothing of any other machine. */
export const FLAGS: readonly string[] = [
  ...["--headless=new", "--disable-gpu", "--disable-quic", "--no-first-run", "--hide-scrollbars"],
  ...["--disable-background-networking", "--disable-component-update", "--disable-sync"],
  "--disable-dev-shm-usage",
  ...[
    "--disable-extensions",
    "--disable-default-apps",
    "--disable-component-extensions-with-background-pages",
  ],
  ...["--disable-client-side-phishing-detection", "--disable-domain-reliability", "--metrics-recording-only"],
  ...["--mute-audio", "--password-store=basic", "--disable-features=Translate,MediaRouter,OptimizationHints"],
  // Nothing slides or fades: every frame drawn without a graphics card costs the tests time.
  "--force-prefers-reduced-motion",
  ...(process.getuid?.() === 0 ? ["--no-sandbox"] : []),
];

/** Debian's Chromium without its windows: it is there in a quarter of the time, and a journey takes a fifth less. */
const HEADLESS = fileURLToPath(new URL("headless.sh", import.meta.url));

/** A person at a screen: what journeys are told in. */
export class Person {
  private constructor(
    readonly driver: WebDriver,
    private readonly profile: string,
  ) {}

  /**
   * @param camera a film in Motion JPEG that the browser takes for what its camera sees.
   * @param keeps whether this browser keeps the open jobs for when the server is away. That is a third of all work of a journey, and done for those
   *   only that are about it.
   */
  static async sitDown({ width = 1280, height = 800, camera = "", keeps = false } = {}): Promise<Person> {
    const profile = mkdtempSync(join(tmpdir(), "yard-key-browser-"));
    const options = new chrome.Options();
    options.setChromeBinaryPath(HEADLESS);
    options.addArguments(
      ...FLAGS,
      ...[
        `--window-size=${width},${height}`,
        `--user-data-dir=${profile}`,
        ...(camera
          ? [
              "--use-fake-device-for-media-stream",
              "--use-fake-ui-for-media-stream",
              `--use-file-for-fake-video-capture=${camera}`,
            ]
          : []),
      ],
    );
    const service = new chrome.ServiceBuilder("/usr/bin/chromedriver");
    const driver = await new Builder()
      .forBrowser("chrome")
      .setChromeOptions(options)
      .setChromeService(service)
      .build();
    const person = new Person(driver, profile);
    await person.screen(width, height);
    if (!keeps) await person.keepsNothing();
    return person;
  }

  private async keepsNothing(): Promise<void> {
    const browser = this.driver as chrome.Driver;
    await browser.sendDevToolsCommand("Network.enable", {});
    await this.hears();
    await browser.sendDevToolsCommand("Page.addScriptToEvaluateOnNewDocument", {
      source:
        "if (navigator.serviceWorker) navigator.serviceWorker.register = () => Promise.reject(new Error());",
    });
  }

  async screen(width: number, height: number): Promise<void> {
    const metrics = { width, height, deviceScaleFactor: 1, mobile: false };
    await (this.driver as chrome.Driver).sendDevToolsCommand("Emulation.setDeviceMetricsOverride", metrics);
  }

  /** As a page is before its script has loaded, or where it never does. */
  async withoutScript(off = true): Promise<void> {
    this.scripted = !off;
    await (this.driver as chrome.Driver).sendDevToolsCommand("Emulation.setScriptExecutionDisabled", {
      value: off,
    });
  }
  private scripted = true;

  /** As a machine so many times slower. */
  slowed = (rate: number): Promise<void> =>
    (this.driver as chrome.Driver).sendDevToolsCommand("Emulation.setCPUThrottlingRate", { rate });

  /**
   * Whether the pages opened from now on are told what others do, or find out when they send something.
   *
   * @param lost addresses that do not answer, with `*` for anything.
   */
  hears = (on = true, lost: readonly string[] = []): Promise<void> =>
    (this.driver as chrome.Driver).sendDevToolsCommand("Network.setBlockedURLs", {
      urls: ["*/kept/jobs*", ...(on ? [] : ["*/live"]), ...lost],
    });

  /** Cuts this person's network, or mends it; the server stays up for everyone else. */
  network = (on: boolean): Promise<void> =>
    (this.driver as chrome.Driver).sendDevToolsCommand("Network.emulateNetworkConditions", {
      offline: !on,
      latency: 0,
      downloadThroughput: -1,
      uploadThroughput: -1,
    });

  async leave(): Promise<void> {
    await this.driver.quit().catch(() => {});
    rmSync(this.profile, { recursive: true, force: true, maxRetries: 3 });
  }

  go = (url: string): Promise<void> => this.driver.get(url);

  /** Waits until something is there. */
  see = (xpath: string, patience = PATIENCE): Promise<WebElement> =>
    this.driver.wait(until.elementLocated(By.xpath(xpath)), patience, `not seen: ${xpath}`, LOOK_AGAIN);
  /** Waits until a text stands on the page; what scripts carry along does not stand on it. */
  read = (text: string, patience = PATIENCE): Promise<unknown> =>
    this.driver.wait(
      async () => this.driver.executeScript<boolean>(READS, text),
      patience,
      `not read: ${text}`,
      LOOK_AGAIN,
    );
  /** Waits until something is no longer there. */
  gone = (xpath: string, patience = PATIENCE): Promise<unknown> =>
    this.driver.wait(
      async () => (await this.driver.findElements(By.xpath(xpath))).length === 0,
      patience,
      `still there: ${xpath}`,
      LOOK_AGAIN,
    );

  /** Waits until a script's answer is as wanted. */
  async until(script: string, wanted: (answer: unknown) => boolean, patience = PATIENCE): Promise<void> {
    await this.driver.wait(
      async () => wanted(await this.driver.executeScript(script)),
      patience,
      `never came true: ${script}`,
      LOOK_AGAIN,
    );
  }

  /** Clicks something where it shows, again if the page was drawn anew meanwhile. */
  press = (xpath: string): Promise<void> => this.point(xpath, 0);

  /** Touches something with a finger: it must be at least 44 pixels both ways, or its label must. */
  touch = (xpath: string): Promise<void> => this.point(xpath, 44);

  /** Clicks what no longer moves and nothing covers. */
  private async point(xpath: string, least: number): Promise<void> {
    const until = performance.now() + PATIENCE;
    for (;;) {
      const spot = await this.driver.executeAsyncScript<Spot | string>(SPOT, xpath, least, this.scripted);
      if (typeof spot !== "string" && (await this.click(spot))) return;
      // What a list drops down is drawn by the browser itself.
      if (spot === "option") return await (await this.see(xpath)).click();
      if (performance.now() > until)
        throw new Error(`${typeof spot === "string" ? spot : "moved"}: ${xpath}`);
      await pause(LOOK_AGAIN);
    }
  }

  /**
   * Clicks there. The driver's own click asks again for all that is known already: most of a click's time went there.
   *
   * @returns false where what was meant had moved away meanwhile: then nothing was clicked.
   */
  private async click({ x, y }: Spot): Promise<boolean> {
    for (const type of ["mousePressed", "mouseReleased"])
      await (this.driver as chrome.Driver).sendDevToolsCommand("Input.dispatchMouseEvent", {
        type,
        x,
        y,
        button: "left",
        clickCount: 1,
      });
    return !this.scripted || (await this.driver.executeScript<boolean | null>(HIT)) !== false;
  }

  /**
   * A scanner that types: its keys bear the times they were sent at, a few milliseconds apart, whatever else the machine does.
   *
   * @param amid what is clicked when half the code has come.
   */
  async scan(code: string, amid?: string): Promise<void> {
    await this.driver.executeAsyncScript(
      `const [code, amid, done] = arguments;
      const start = performance.now();
      const keys = [...code, "Enter"].map((key, i) => {
        const event = new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true });
        Object.defineProperty(event, "timeStamp", { value: start + i * 8 });
        return event;
      });
      const type = (some) => some.forEach((key) => (document.activeElement ?? document.body).dispatchEvent(key));
      if (!amid) return type(keys), done();
      type(keys.slice(0, -4));
      document.querySelector(amid).click();
      setTimeout(() => { type(keys.slice(-4)); done(); }, 100);`,
      code,
      amid ?? null,
    );
  }

  /** Keys to whatever has the focus, from one go to the next no quicker than a hand. */
  async keys(...keys: string[]): Promise<void> {
    await pause(Math.max(0, this.lastKeys + FAST_MS + 20 - performance.now()));
    await this.driver
      .actions()
      .sendKeys(...keys)
      .perform();
    this.lastKeys = performance.now();
  }
  private lastKeys = -Infinity;

  /**
   * Writes into a field instead of what stands there, as a hand does. The driver's own way to empty a field is not heard by the page: what it
   * took out stood there again when the page was next drawn.
   */
  write = async (xpath: string, ...text: string[]): Promise<void> =>
    (await this.see(xpath)).sendKeys(Key.chord(Key.CONTROL, "a"), Key.BACK_SPACE, ...text);

  /** Marks everything in the field, so that typing replaces it. */
  async selectAll(): Promise<void> {
    await this.driver.actions().keyDown(Key.CONTROL).sendKeys("a").keyUp(Key.CONTROL).perform();
  }

  /** Goes on with Tab until something matching has the focus, as one does without a mouse. */
  async tabTo(css: string, most = 60): Promise<void> {
    for (let i = 0; i < most; i++) {
      if (await this.driver.executeScript("return document.activeElement?.matches(arguments[0])", css))
        return;
      await this.keys(Key.TAB);
    }
    throw new Error(`Tab never came to ${css}`);
  }

  focused = (): Promise<string> =>
    this.driver.executeScript("return document.activeElement?.id || document.activeElement?.innerText || ''");

  /** Where the script found another page than it would have drawn, or failed over one: what was seen was thrown away then. */
  async mismatches(): Promise<string[]> {
    const told = await this.driver.manage().logs().get("browser");
    const errors = told.map(({ message }) => message).filter((message) => message.includes("React error"));
    const quirks = await this.driver.executeScript<boolean>(
      "return document.contentType === 'text/html' && location.protocol !== 'about:' && document.compatMode !== 'CSS1Compat'",
    );
    return quirks ? [...errors, "the page is drawn by no rules: it has no doctype"] : errors;
  }

  async shot(file: string): Promise<void> {
    writeFileSync(file, Buffer.from(await this.driver.takeScreenshot(), "base64"));
  }

  async signIn(url: string, name: string, pin = "2580"): Promise<void> {
    await this.go(`${url}/sign-in`);
    await this.ready();
    await (await this.see(`//label[contains(., ${quoted(name)})]`)).click();
    await (await this.see("//input[@name='pin']")).sendKeys(pin, Key.ENTER);
    await this.see("//h1[.='Jobs']");
  }

  /** Sits down signed in: where signing in is not what a journey is about. */
  async sitsAs(shop: Pick<Shop, "cookieOf">, name: string, url: string): Promise<void> {
    const [cookie = "", value = ""] = (await shop.cookieOf(name)).split(/=(.*)/s);
    const browser = this.driver as chrome.Driver;
    // As signing in does.
    await browser.sendDevToolsCommand("Network.deleteCookies", { name: LEFT, url });
    await browser.sendDevToolsCommand("Network.setCookie", {
      name: cookie,
      value,
      url,
      httpOnly: true,
      sameSite: "Lax",
    });
    await this.go(url);
    await this.see("//h1[.='Jobs']");
    await this.ready();
  }

  /** Until the page's script has taken over and hears its keys. */
  ready = (): Promise<void> => this.until("return 'listens' in document.documentElement.dataset", Boolean);

  /**
   * What axe-core finds serious or critical on the page, in words.
   *
   * @param rules which alone are looked at; all of them unless told otherwise.
   */
  async axe(...rules: string[]): Promise<string[]> {
    await this.driver.executeScript(`window.axe || (() => { ${axeSource} })()`);
    const results = await this.driver.executeAsyncScript<
      { id: string; impact: string; nodes: { html: string; any: { message: string }[] }[] }[]
    >(
      "const done = arguments[arguments.length - 1]; axe.run(document, { resultTypes: ['violations'], ...(arguments[0].length ? { runOnly: arguments[0] } : {}) }).then((r) => done(r.violations))",
      rules,
    );
    return results
      .filter(({ impact }) => impact === "serious" || impact === "critical")
      .map(
        ({ id, nodes }) =>
          `${id}: ${nodes.map(({ html, any }) => `${html.slice(0, 160)} ${any[0]?.message ?? ""}`).join(" | ")}`,
      );
  }
}

/** Whether a text stands on the page, its spaces being one each. */
const READS = `
  const texts = [];
  const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (walk.nextNode()) if (!/^(SCRIPT|STYLE)$/.test(walk.currentNode.parentElement.tagName)) texts.push(walk.currentNode.data);
  return texts.join("").replace(/\\s+/g, " ").includes(arguments[0]);
`;

/** The middle of what shows of a thing, in the window's pixels. */
interface Spot {
  x: number;
  y: number;
}

/** Finds by XPath where one would point, once it no longer moves: a spot, or why there is none yet. */
const SPOT = `
  const [xpath, least, scripted, done] = arguments;
  const look = () => {
    // A person sees no more of it, but what is pressed before the script has taken over may be undone by it.
    if (scripted && !("listens" in document.documentElement.dataset)) return "not listening yet";
    const found = document.evaluate(xpath, document, null, XPathResult.FIRST_ORDERED_NODE_TYPE, null).singleNodeValue;
    if (!found) return "not seen";
    if (found.tagName === "OPTION") return "option";
    if (found.disabled) return "switched off";
    let instead = "not shown";
    for (const block of ["nearest", "center"]) {
      found.scrollIntoView({ block, inline: "nearest", behavior: "instant" });
      const { width, height } = found.getBoundingClientRect();
      if (width < least || height < least) return "too small to touch (" + width + "×" + height + ")";
      for (const box of found.getClientRects()) {
        const [left, right] = [Math.max(box.left, 0), Math.min(box.right, innerWidth)];
        const [top, bottom] = [Math.max(box.top, 0), Math.min(box.bottom, innerHeight)];
        if (left >= right || top >= bottom) continue;
        const spot = { x: (left + right) / 2, y: (top + bottom) / 2 };
        const on = document.elementFromPoint(spot.x, spot.y);
        if (on && found.contains(on)) return spot;
        instead = "covered by " + (on ? on.outerHTML.slice(0, 120) : "nothing");
      }
    }
    return instead;
  };
  const first = look();
  // Without script nothing moves, and nothing is called back.
  if (typeof first === "string" || !scripted) return done(first);
  // A page in the background draws no frames.
  const frame = document.hidden ? (then) => setTimeout(then, 20) : requestAnimationFrame;
  frame(() => frame(() => {
    const then = look();
    if (typeof then === "string" || then.x !== first.x || then.y !== first.y)
      return done(typeof then === "string" ? then : "moving");
    // The page may still move before the click comes: one that would hit something else hits nothing.
    const meant = document.elementFromPoint(then.x, then.y);
    window.clickHit = undefined;
    const guard = (event) => {
      const hit = event.target === meant || meant.contains(event.target);
      // What moves away under a finger is not clicked: the finger has to come again.
      if (event.type === "pointerdown" || (event.type === "pointerup" && meant.isConnected && !hit)) window.clickHit = hit;
      if (window.clickHit === false) {
        event.preventDefault();
        event.stopImmediatePropagation();
      }
    };
    const kinds = ["pointerdown", "mousedown", "pointerup", "mouseup", "click"];
    window.clickGuard?.();
    window.clickGuard = () => kinds.forEach((kind) => window.removeEventListener(kind, guard, true));
    for (const kind of kinds) window.addEventListener(kind, guard, true);
    done(then);
  }));`;

/** Whether the click hit what was meant; nothing on a page that it has led to. */
const HIT = "window.clickGuard?.(); return window.clickHit;";

const axeSource = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

/** A text for XPath, which has no escapes. */
export const quoted = (text: string): string => (text.includes("'") ? `"${text}"` : `'${text}'`);

/** Runs a journey; when it fails, keeps what each person saw and tells what the shop complained of. */
export async function journey(name: string, people: Person[], walk: () => Promise<void>): Promise<void> {
  try {
    await walk();
    const mismatches = (await Promise.all(people.map((person) => person.mismatches()))).flat();
    if (mismatches.length > 0) throw new Error(mismatches.join("\n"));
  } catch (error) {
    for (const [i, person] of people.entries())
      await person.shot(`test-results/${name}-${i + 1}.png`).catch(() => {});
    if (error instanceof Error && complaints.length > 0)
      error.message += `\nThe shop complained:\n${complaints.join("\n")}`;
    throw error;
  }
}

/**
 * A walk of several chapters, each beginning where the one before ended. It is one test, which needs no other; what fails says in which
 * chapter.
 */
export class Story {
  private readonly chapters: { name: string; walk: () => Promise<void> }[] = [];

  chapter(name: string, walk: () => Promise<void>): void {
    this.chapters.push({ name, walk });
  }

  async told(): Promise<void> {
    for (const { name, walk } of this.chapters)
      try {
        await walk();
      } catch (error) {
        if (error instanceof Error) error.message = `${name}: ${error.message}`;
        throw error;
      }
  }
}

export { By, Key };
