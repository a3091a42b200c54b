import { writeFileSync } from "node:fs";
import { Key, Person } from "../e2e/browser";
import { openShop } from "../e2e/shop";
import { startCluster } from "./cluster";
const cluster = await startCluster("look", { fresh: true, careless: true });
process.env.TEST_DATABASE_URL = cluster.url;
const shop = await openShop({});
const p = await Person.sitDown();
const d = p.driver as any;
await p.sitsAs(shop, "Mira K.", shop.url);
await p.go(`${shop.url}/jobs/1030/choose/d3-clearance?show=found`);
await p.until("return document.activeElement.id", (at) => at === "reading-value");
await d.sleep(1500);
await p.slowed(4);
const prof = process.argv[2] === "prof";
await p.driver.executeScript(`
  window.taken = []; const PROF = ${prof};
  window.enterMark = function enterMark(){ const t=performance.now(); while(performance.now()-t<1.5); };
  window.verdictMark = function verdictMark(){ const t=performance.now(); while(performance.now()-t<1.5); };
  const count = () => Number(/ of (\\d+) *count/.exec(document.querySelector('[data-verdict]')?.textContent ?? '')?.[1] ?? 0);
  document.addEventListener('keydown', (event) => {
    if (event.key !== 'Enter') return;
    if (PROF) window.enterMark();
    const begun = performance.now(); const counted = count();
    const seen = new MutationObserver(() => {
      if (count() === counted) return;
      const verdict = performance.now() - begun;
      if (PROF) window.verdictMark();
      seen.disconnect();
      requestAnimationFrame(() => window.taken.push({ verdict, frame: performance.now() - begun }));
    });
    seen.observe(document.querySelector('[aria-label="Verdict"]'), { subtree: true, childList: true, characterData: true, attributes: true });
  }, true);`);
if (prof) { await d.sendAndGetDevToolsCommand("Profiler.enable", {}); await d.sendAndGetDevToolsCommand("Profiler.setSamplingInterval", { interval: 100 }); await d.sendAndGetDevToolsCommand("Profiler.start", {}); }
const n = 45;
for (let i = 0; i < n; i++) {
  await d.sleep(250);
  await p.keys(`1.${20 + (i % 7)}`, Key.ENTER);
  await p.until("return window.taken.length", (k) => k === i + 1);
}
if (prof) { const r = await d.sendAndGetDevToolsCommand("Profiler.stop", {}); writeFileSync("/tmp/key.cpuprofile", JSON.stringify(r.profile)); }
const taken = await p.driver.executeScript<{ verdict: number; frame: number }[]>("return window.taken");
const med = (v: number[]) => v.sort((a, b) => a - b)[Math.floor(v.length / 2)]!;
const at = (a: number, b: number) => (med(taken.slice(a, b).map((t) => t.verdict)) / 16).toFixed(2);
console.log("verdict frames 3-15", at(3, 15), "15-30", at(15, 30), "30-45", at(30, 45), "frame", (med(taken.slice(3).map((t) => t.frame)) / 16).toFixed(2));
await p.leave(); await shop.close(); await cluster.stop(); process.exit(0);
