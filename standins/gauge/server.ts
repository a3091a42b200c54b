// The simulated gauge: `PORT=4400 node --import tsx standins/gauge/server.ts`. One drum per bench; GET /stream?bench=1 tells the
// needle as server-sent events, POST /set {bench, drum?, gap?, air?} mounts a drum or turns the valve, POST /take {what, gauge, nominal} reads
// anything else once with a micrometer, a bore gauge, a depth gauge, blades; POST /pull {bench, torque} pulls a wrench, POST /air {what, pressure,
// allowed} tries an element with air. docs/formats.md.
import { createServer } from "node:http";
import { faultOf, tried } from "../air-rig/rig";
import { chanceOf } from "../chance";
import { stand, told } from "../stand";
import { fresh, pull, type WrenchState } from "../wrench/wrench";
import { after, atRest, hiddenOffset, shown, STEP, valve, type DrumState } from "./drum";
import { reading } from "./tools";

interface Bench {
  drum: string;
  gap: number;
  state: DrumState;
  at: number;
}
const benches = new Map<string, Bench>();
const EVERY_MS = 50;
const MOST_BENCHES = 500;

function bench(id: string): Bench {
  let found = benches.get(id);
  if (!found) {
    if (benches.size >= MOST_BENCHES) benches.delete([...benches.keys()][0] ?? "");
    found = { drum: "", gap: 0, state: atRest(), at: Date.now() };
    benches.set(id, found);
  }
  const now = Date.now();
  found.state = after(found.state, now - found.at);
  found.at = now;
  return found;
}

// A seed makes a run repeatable; without one every run scatters differently.
const chance = chanceOf(Number(process.env.SEED ?? Date.now() % 2 ** 31));

function set(given: { bench: string; drum?: string; gap?: number; air?: boolean }): object {
  const one = bench(given.bench);
  const { drum = one.drum, gap = one.gap, air } = given;
  if (drum !== one.drum || gap !== one.gap) Object.assign(one, { drum, gap, state: atRest() });
  if (air !== undefined) one.state = valve(one.state, air, one.gap + hiddenOffset(one.drum), chance);
  return {};
}

const take = ({ what, gauge, nominal }: { what: string; gauge: string; nominal: number }): object =>
  reading(gauge, what, nominal, chance);

const wrenches = new Map<string, WrenchState>();
function pulled({ bench: id, torque, charge }: { bench: string; torque: number; charge?: boolean }): object {
  if (wrenches.size >= MOST_BENCHES) wrenches.clear();
  const before = charge === true ? fresh() : (wrenches.get(id) ?? fresh());
  const { state, pulled: answer } = pull(before, torque, chance);
  wrenches.set(id, state);
  return answer;
}

const air = ({ what, pressure, allowed }: { what: string; pressure: number; allowed: number }): object =>
  tried(faultOf(what), pressure, allowed, chance);

const server = createServer((request, response) => {
  const url = new URL(request.url ?? "/", "http://gauge");
  if (request.method === "GET" && url.pathname === "/stream") {
    response.writeHead(200, { "Content-Type": "text/event-stream", "Cache-Control": "no-store" });
    const id = url.searchParams.get("bench") ?? "1";
    const tell = (): void => {
      const { state } = bench(id);
      response.write(`data: ${JSON.stringify({ needle: shown(state), air: state.air, step: STEP })}\n\n`);
    };
    tell();
    const timer = setInterval(tell, EVERY_MS);
    response.on("close", () => clearInterval(timer));
    return;
  }
  if (request.method === "POST" && url.pathname === "/set") return told(request, response, set);
  if (request.method === "POST" && url.pathname === "/take") return told(request, response, take);
  if (request.method === "POST" && url.pathname === "/pull") return told(request, response, pulled);
  if (request.method === "POST" && url.pathname === "/air") return told(request, response, air);
  response.writeHead(404).end();
});
stand(server, 4400);
