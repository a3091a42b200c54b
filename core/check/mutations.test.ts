import { describe, expect, it, test } from "@jest/globals";
import fc from "fast-check";
import { documentOf, UNITS, type UnitId } from "../../demo/units";
import { type Problem } from "../book";
import { readBook } from "./index";
import { samples } from "../testing/samples";

type Node = Record<string, unknown> | unknown[];
const TAKEN_OUT = Symbol("taken out");

/** `chains#d1-clearance.spec.max`: keys with dots between, an entry of a list by `#` and its id, element or number. */
function place(document: unknown, path: string): { node: Node; key: string | number; at: string } {
  let node = document as Node;
  let at = "";
  const steps = path
    .split(".")
    .flatMap((step) => step.split("#").map((part, i) => (i === 0 ? part : `#${part}`)));
  let key: string | number = "";
  steps.forEach((step, i) => {
    if (step.startsWith("#")) {
      const wanted = step.slice(1);
      const list = node as { id?: string; element?: string }[];
      const found = list.findIndex((entry) => entry?.id === wanted || entry?.element === wanted);
      key = found >= 0 ? found : Number(wanted);
      at += `[${key}]`;
    } else {
      key = step;
      at += at ? `.${step}` : step;
    }
    if (i < steps.length - 1) node = (node as Record<string | number, Node>)[key] as Node;
  });
  return { node, key, at };
}

function mutated(unit: UnitId, path: string, change: unknown): { document: unknown; at: string } {
  const document = documentOf(unit);
  const { node, key, at } = place(document, path);
  const target = node as Record<string | number, unknown>;
  if (change === TAKEN_OUT) {
    if (Array.isArray(node)) node.splice(Number(key), 1);
    else delete target[key];
  } else
    target[key] =
      typeof change === "function" ? (change as (before: unknown) => unknown)(target[key]) : change;
  return { document, at };
}

const push =
  (...more: unknown[]) =>
  (list: unknown) => [...((list as unknown[] | undefined) ?? []), ...more];
const swap = (a: number, b: number) => (list: unknown) => {
  const copy = [...(list as unknown[])];
  [copy[a], copy[b]] = [copy[b], copy[a]];
  return copy;
};
const D = "marram-dunlin";
const W = "marram-whimbrel";
const S = "selwyn-sanderling";
const T = "selwyn-turnstone";
const G = "corrie-godwit";
const P = "corrie-plover";

/** One deliberate fault each: where it is told (the place itself unless another is named), and the words that help. */
const FAULTS: [string, UnitId, string, unknown, RegExp, string?][] = [
  // form
  ["a thickness without a unit", D, "packs#d1.stack#0.thickness", "1.90", /has no unit; write "1.90 mm"/],
  ["a thickness as a number", T, "packs#fc.stack#0.thickness", 1.8, /expected a text with its unit/],
  ["a torque in bar", D, "fasteners#pan-bolts.torque", "9 bar", /no unit of torque.*N·m/],
  ["a torque without a unit", W, "fasteners#pan-bolts.torque", "10", /has no unit/],
  ["a pressure in newtons", D, "airChecks#d1.pressure", "3 N", /no unit of pressure/],
  ["a temperature without degrees", T, "fluid.level#0.from", "35", /has no unit.*40 °C/],
  ["an unknown key", S, "packs#d1.colour", "red", /unknown key.*known here: element/],
  [
    "a slip in a key",
    D,
    "chains#d1-clearance.soking",
    { amount: "-0.06 mm", within: "0.02 mm" },
    /unknown key/,
  ],
  ["a missing name", G, "packs#k1.name", TAKEN_OUT, /expected words, got nothing/],
  ["an unknown role", S, "packs#d3.stack#0.role", "stell", /use one of: piston, apply plate/],
  ["an id with capitals", W, "stations#pump.id", "Pump", /lower-case words with dashes/],
  ["a count of nothing", D, "packs#d3.stack#0.count", 0, /whole number.*1 to 20/],
  ["a station beyond the unit", T, "stations#primary.to", 120, /write one from 0 to 100/],
  ["a day that is none", D, "chains#d1-clearance.spec.checked", "May 2026", /write it as 2026-05-04/],
  ["another family", P, "unit.family", "manual", /automatic, cvt, dual-clutch/],
  ["another format", G, "format", "yard-key/book@2", /yard-key\/book@1/],
  ["a section missing", W, "members", TAKEN_OUT, /no member/, "gearSets[0].sun[0]"],
  ["a link of one word", D, "chains#d1-clearance.links#0", ["+"], /expected 4 values/],
  ["a flag in quotes", D, "parts#filter.oneTime", "true", /without quotes/],
  // what makes it stronger
  [
    "a way that changes nothing",
    D,
    "stronger#d1-flat.without",
    TAKEN_OUT,
    /changes nothing/,
    "stronger#d1-flat",
  ],
  [
    "plates of two packs at once",
    D,
    "stronger#d3-thin-steels.elements",
    ["d3", "d1"],
    /several packs at once/,
  ],
  ["plates of what has none", D, "stronger#d3-thin-steels.elements", ["f1"], /f1 has no plates/],
  [
    "a plate that the pack has not",
    D,
    "stronger#d1-flat.elements",
    ["d3"],
    /d3 has no waved plate/,
    "stronger#d1-flat.without",
  ],
  ["a thin steel that is none", D, "stronger#d3-thin-steels.steels.thickness", "1.80 mm", /makes no room/],
  [
    "a plate that is chosen",
    S,
    "stronger#d2-end-plate.elements",
    ["h1"],
    /is chosen/,
    "stronger#d2-end-plate.reaction",
  ],
  [
    "a step of metal beyond the most",
    D,
    "stronger#d1-piston-cut.cut.step",
    "2.00 mm",
    /more than may come off/,
  ],
  [
    "a lining where no band is",
    W,
    "stronger#hard-lining.elements",
    ["direct"],
    /direct has no band/,
    "stronger#hard-lining.friction",
  ],
  [
    "plates that are made to carry",
    W,
    "stronger#wide-roller.elements",
    ["direct"],
    /is worked out/,
    "stronger#wide-roller.carries",
  ],
  [
    "a stronger part that takes no more",
    W,
    "stronger#hard-shell.takes",
    "900 lbf·ft",
    /no more than the stock/,
  ],
  [
    "what a stronger part takes, of a part nobody says anything of",
    W,
    "stronger#hard-shell.part",
    "front-carrier",
    /nobody says what the stock front-carrier takes/,
    "stronger#hard-shell.takes",
  ],
  [
    "a part through which two things run",
    D,
    "parts#input-shaft.takes.element",
    "d1",
    /what runs through it/,
    "parts#input-shaft.takes",
  ],
  [
    "pressure on rollers",
    D,
    "stronger#regulator-spring.elements",
    ["f1"],
    /nothing presses on f1/,
    "stronger#regulator-spring",
  ],
  [
    "pressure raised to what it is",
    G,
    "stronger#k-pressure.pressure",
    "16 bar",
    /no more than the stock pressure/,
  ],
  [
    "an engine held back in no range",
    D,
    "unit.behind.held",
    { "7": 0.5 },
    /no range "7"/,
    "unit.behind.held.7",
  ],
  ["an engine without torque", D, "unit.behind.torque", "300 rpm", /no unit of torque/],
  // names and references
  ["an id twice", D, "chains#d3-clearance.id", "d1-clearance", /stands twice.*its own id/],
  ["a part twice", T, "parts#body.id", "pan", /stands twice/],
  ["a station that is not there", D, "packs#d1.station", "tail", /no station "tail".*use one of/],
  ["a series that is not there", S, "packs#d1.grooves#0.ring", "ring-z", /no series "ring-z"/],
  ["a pack that is not there", D, "chains#d1-clearance.of", "d9", /no pack "d9"/],
  ["a member that is not there", W, "elements#forward.joins#1", "moon", /no member "moon"/],
  ["an element that is not there", G, "ranges#1.applied#0", "k7", /no element "k7"/],
  ["a part that is not there", S, "packs#d1.stack#1.part", "d1-stell", /no part.*use one of: d1-/],
  [
    "a wrench that does not reach",
    D,
    "tools#torque-large.reach.to",
    "40 N·m",
    /no wrench of the book reaches.*there are: torque wrench/,
    "fasteners#converter-bolts.torque",
  ],
  [
    "a wrench that ends below where it begins",
    D,
    "tools#torque-large.reach.to",
    "10 N·m",
    /not above where it begins/,
  ],
  [
    "a step with the wrong wrench",
    W,
    "build#b-tail.tools",
    ["wrench-ft"],
    /none of its wrenches reaches the 60 lbf·in.*wrench 20 to 150/,
  ],
  ["a tool that is not there", D, "teardown#t-pump.tools#0", "hammer", /no tool "hammer"/],
  [
    "a part left for a step that never comes",
    D,
    "teardown#t-pump-apart.leave",
    ["pump-gears"],
    /pump-gears is left for now, and no later step takes it/,
    "teardown#t-pump-apart.leave",
  ],
  [
    "a part that is looked at next when it is worn",
    D,
    "parts#f1.then",
    [{ part: "f1", look: "twice" }],
    /looks at itself/,
    "parts#f1.then#0.part",
  ],
  ["a record of another page", D, "teardown#t-read.record#0.on", "moon", /debris/],
  ["a second fluid that is no id", S, "fluid.others#0.id", "Final Drive", /id/],
  ["a caution that is not there", T, "teardown#t-diff.caution", "sharp", /no caution/],
  ["a bolt group that is not there", W, "build#b-pan.fasteners#0", "bolts", /no fastener group/],
  ["a depth that is not there", D, "packs#d1.depth#0", "tail", /no depth "tail".*full/],
  [
    "a chain in a step that is not there",
    P,
    "build#b-play.chains#0",
    "lever",
    /no chain "lever".*lever-play/,
  ],
  ["a groove's mistaken series", G, "packs#k2.grooves#0.alsoTakes#0", "ring", /no series "ring".*ring-outer/],
  // versions and depths
  [
    "a trait that is not there",
    D,
    "packs#d1.stack#1.when",
    { year: "2001" },
    /no trait "year".*body/,
    "packs[0].stack[1].when.year",
  ],
  [
    "a value the trait has not",
    D,
    "packs#d1.stack#1.when",
    { body: "middle" },
    /early, late/,
    "packs[0].stack[1].when.body",
  ],
  [
    "a when inside another that contradicts it",
    S,
    "packs#ac.stack#0.when",
    { drive: "two" },
    /no configuration meets this/,
    "packs[5].stack[0].when.drive",
  ],
  ["a trait with one value", W, "traits#body.values", { a: { name: "A", tell: "x" } }, /at least two values/],
  [
    "a chain without a spec for one version",
    P,
    "chains#rod-one.spec#1",
    TAKEN_OUT,
    /no spec holds \(actuator preset\)/,
    "chains[2].spec",
  ],
  [
    "a depth that leaves a chain without its steps",
    D,
    "chains#pump-side.depth",
    ["pan and body", "full"],
    /no step there reads it.*take "pan and body" out/,
    "chains[7]",
  ],
  // gears
  [
    "a ratio that the teeth contradict",
    D,
    "ranges#2.ratio",
    2.3,
    /range 2: the ratio is 2.2841.*listed is 2.3/,
    "ranges[1]",
  ],
  ["a tooth too many", W, "gearSets#rear.ring", ["output", 72], /range 2: the ratio is/, "ranges[1]"],
  [
    "a wrong element in the chart",
    S,
    "ranges#5.applied",
    ["d1", "h1"],
    /range 5: the ratio is 2.3003/,
    "ranges[4]",
  ],
  [
    "an element missing from the chart",
    D,
    "ranges#3.applied",
    ["d3"],
    /range 3: d3 gives neutral/,
    "ranges[2]",
  ],
  [
    "an element too many in the chart",
    W,
    "ranges#3.applied",
    ["forward", "direct", "hold"],
    /a tie-up, not a gear/,
    "ranges[2]",
  ],
  ["a reverse without its sign", T, "ranges#R.ratio", 1.1304, /the ratio is −1.1304/, "ranges[1]"],
  ["a set of the wrong kind", T, "gearSets#direction.kind", "simple", /range R: the ratio is/, "ranges[1]"],
  [
    "an idler forgotten",
    G,
    "gearSets#pair-r.idlers",
    TAKEN_OUT,
    /range R: the ratio is 11.2955/,
    "ranges[7]",
  ],
  [
    "a one-way clutch turned round",
    W,
    "elements#low-roller.free",
    "backward",
    /would have to turn the way it cannot/,
    "ranges[2]",
  ],
  ["a one-way clutch without its sense", S, "elements#f1.free", TAKEN_OUT, /"forward" or "backward"/],
  ["a clutch with a sense", D, "elements#d1.free", "forward", /holds both ways/],
  [
    "a brake that holds nothing",
    D,
    "elements#h1.joins",
    ["large-sun", "input"],
    /joins a member to case/,
    "elements[3].kind",
  ],
  ["an element that joins one thing", G, "elements#k1.joins#1", "engine", /name the other one/],
  ["a key of another kind of gear set", D, "gearSets#front.driver", ["input", 20], /a simple has none/],
  ["a gear set without its carrier", D, "gearSets#front.carrier", TAKEN_OUT, /a simple needs it/],
  [
    "an element outside the ranges in a range",
    D,
    "ranges#4.applied",
    ["d1", "d2", "lc"],
    /lc is outside the ranges/,
    "ranges[3]",
  ],
  ["output and input the same", P, "train.output", "engine", /three different members/, "train"],
  // packs and series
  [
    "two frictions together",
    D,
    "packs#d3.stack#0.count",
    1,
    /two frictions lie together.*alternate/,
    "packs[1].stack",
  ],
  [
    "a pack without frictions",
    T,
    "packs#rb.stack",
    [{ role: "steel", part: "rb-steel", thickness: "1.8 mm" }],
    /list the frictions/,
  ],
  ["a facing inside out", D, "packs#d1.facing.outer", "40 mm", /outer radius is not above the inner/],
  ["a waved plate read nobody knows how", S, "chains#d1-clearance.spec.wave", TAKEN_OUT, /"free" or "flat"/],
  [
    "sizes that fall",
    G,
    "series#ring-inner.sizes",
    swap(1, 2),
    /from thin to thick/,
    "series[1].sizes[2].size",
  ],
  ["a mark twice", D, "series#ring-a.sizes#2.mark", "plain", /each size its own mark/],
  ["a part number twice", T, "series#shim-diff.sizes#2.part", "ST-1007", /each size its own part/],
  // chains
  ["limits the wrong way round", D, "chains#d1-clearance.spec.max", "1.00 mm", /max is not above min/],
  ["a target outside", G, "chains#hub-end-play.spec.target", "0.20 mm", /lies outside.*0.04 to 0.12 mm/],
  [
    "a depth no ring can close",
    S,
    "chains#d1-clearance.links#0",
    ["+", "measured", "groove", "30.00 mm"],
    /no size of its series brings it inside/,
    "chains[0].links",
  ],
  [
    "a bearing clearance that is none",
    W,
    "chains#pump-bushing.links#0",
    ["+", "measured", "bore", "1.9000 in"],
    /nominal sizes give 0.025 in/,
    "chains#pump-bushing.links",
  ],
  [
    "a plate too many for the drum",
    D,
    "packs#d2.stack#1.count",
    5,
    /no size of its series brings it inside/,
    "chains[4].links",
  ],
  ["soaking that opens", D, "chains#d1-clearance.soaking.amount", "+0.06 mm", /write it with a minus/],
  ["bedding-in that closes", D, "chains#d1-clearance.bedding.amount", "-0.03 mm", /write it with a plus/],
  [
    "a relation that can never be met",
    W,
    "orders#0",
    ["band-travel", "<=", "input-end-play"],
    /can never be met/,
  ],
  ["a chain against itself", D, "orders#0", ["input-end-play", "<=", "input-end-play"], /name the other one/],
  ["a clearance of no pack", T, "chains#fc-clearance.of", TAKEN_OUT, /name the pack/],
  [
    "a stack of a pack that is not there",
    D,
    "chains#d1-clearance.links#1",
    ["-", "stack", "d7"],
    /no pack "d7"/,
    "chains[0].links[1][2]",
  ],
  [
    "a spec that is never used",
    P,
    "chains#rod-one.spec",
    (specs: unknown) => [...(specs as unknown[])].reverse(),
    /never used.*put those with a `when` first/,
    "chains[2].spec[1]",
  ],
  // parts, fasteners, steps, service
  ["parts that hold each other's tree", D, "parts#pump.of", "pump-cover", /loop: .*pump/],
  [
    "a part sold with an assembly that this version has not",
    G,
    "parts#k1-piston.when",
    TAKEN_OUT,
    /not there in this version \(.*clutch second/,
    "parts#k1-piston.of",
  ],
  ["parts that hold each other", S, "parts#pump.heldBy", ["pump-rotors"], /which comes off first/],
  [
    "a part number twice in the parts",
    P,
    "parts#actuator.number",
    "CP-8003",
    /already/,
    "parts#actuator.number",
  ],
  [
    "a trait set to nothing",
    D,
    "parts#plate-two.sets",
    { plate: "three" },
    /no value "three".*one, two/,
    "parts#plate-two.sets.plate",
  ],
  [
    "a place missing",
    D,
    "fasteners#pan-bolts.places#3",
    TAKEN_OUT,
    /16 fasteners and 15 places/,
    "fasteners[0].count",
  ],
  ["a count too high", G, "fasteners#case-bolts.count", 14, /make them equal/],
  ["two bolts in one place", T, "fasteners#body-bolts.places#1.at", [20, 18], /two fasteners in one place/],
  ["a bolt without a length", W, "fasteners#body-bolts.places#0.length", TAKEN_OUT, /how long is it/],
  [
    "passes that fall",
    D,
    "fasteners#body-bolts.passes",
    ["12 N·m"],
    /the torque the tightest/,
    "fasteners[1].passes[0]",
  ],
  [
    "a retorque tighter than the torque",
    D,
    "fasteners#pan-bolts.retorque.torque",
    "20 N·m",
    /tighter than the torque/,
  ],
  [
    "a pump out before its bolts' converter",
    D,
    "teardown",
    swap(3, 14),
    /comes out before.*move it behind/,
    "teardown[3].parts",
  ],
  [
    "a holder that no step takes off",
    D,
    "teardown#t-front-set.parts",
    (parts: unknown) => (parts as string[]).filter((id) => id !== "front-carrier"),
    /front-carrier holds d1-drum and no step takes it off/,
    "parts#d1-drum.heldBy",
  ],
  [
    "bolts that come out a second time",
    D,
    "teardown#t-pump.fasteners",
    push("pan-bolts"),
    /pan-bolts are already out/,
  ],
  [
    "bolts that no build step puts in",
    D,
    "build#b-pump-in.fasteners",
    TAKEN_OUT,
    /pump-bolts come out and no build step/,
    "teardown#t-pump.fasteners",
  ],
  [
    "the build reversed",
    D,
    "build",
    (all: unknown) => [...(all as unknown[])].reverse(),
    /goes in behind .*, which holds it/,
    "build[23].parts",
  ],
  [
    "a plate put in under others",
    G,
    "build#b-k1-second.parts",
    push("k1-wave"),
    /k1-wave lies under plates of k1 that b-k1 has put in/,
  ],
  [
    "a clearance read before the last plates are in",
    D,
    "build#b-d1.chains",
    push("d1-clearance"),
    /reads the clearance of d1 before b-d1-/,
  ],
  [
    "a pack tried with air before the last plates are in",
    T,
    "build#b-fc.airChecks",
    push("fc"),
    /tries with air fc before b-fc-/,
  ],
  ["a part taken out twice", S, "teardown#t-nut.parts", push("f1"), /already out/],
  ["one pinion twice", D, "chains#front-pinion-play.read.each#1", "pinion 1", /stands there twice/],
  [
    "each of what is wanted before opening",
    D,
    "measurements#line-idle.each",
    ["one", "two"],
    /before opening there is one figure/,
  ],
  ["each of a pack", D, "chains#d1-clearance.read.each", ["one"], /a pack has one clearance/],
  ["both each and over", D, "measurements#steel-flat.each", ["one"], /says already what it is taken of/],
  [
    "a plate thickness without its limit",
    D,
    "measurements#steel-thickness.under",
    TAKEN_OUT,
    /how much thinner/,
  ],
  ["a plate thickness of nothing", D, "measurements#steel-thickness.over", TAKEN_OUT, /of which plates/],
  ["under where no plate is measured", D, "measurements#solenoid-r.under", "0.05 mm", /has no `under`/],
  ["a resistance in volts", D, "measurements#solenoid-r.min", "5 V", /no unit of resistance/],
  [
    "limits of a measurement the wrong way round",
    D,
    "measurements#line-idle.max",
    "1 bar",
    /max is not above min/,
  ],
  ["a valve drop with a figure", W, "measurements#boost-fall.max", "3 mm", /seen, not measured.*expect/],
  [
    "a measurement of nothing",
    T,
    "measurements#flow-fall.expect",
    TAKEN_OUT,
    /give `min`, `max` or `expect`/,
    "measurements#flow-fall",
  ],
  ["a fluid window of no width", S, "fluid.level#0.to", "30 °C", /make `to` warmer/],
  ["two relearns in one place", G, "relearns#kiss.order", 1, /each its own place/],
  // versions that lack what they name, parts nobody takes out
  [
    "a plate that one version has not, in a stack of both",
    D,
    "parts#d1-steel.when",
    { body: "late" },
    /d1-steel is not there in every version this is in \(body early\)/,
    "packs#d1.stack#1.part",
  ],
  [
    "an element that one version has not, in a range of both",
    W,
    "elements#hold.when",
    { body: "a" },
    /hold is not there in every version.*body b/,
    "ranges[1].applied[1]",
  ],
  [
    "a part no step takes out",
    T,
    "teardown#t-fc.parts",
    (parts: unknown) => (parts as string[]).filter((id) => id !== "fc-friction"),
    /no step takes fc-friction out/,
    "parts#fc-friction",
  ],
  // trains
  [
    "pulley ends swapped",
    T,
    "gearSets#variator",
    (set: unknown) => ({ ...(set as object), low: 0.42, high: 2.41 }),
    /swap `low` and `high`/,
    "gearSets#variator.low",
  ],
  [
    "a set with one member twice",
    D,
    "gearSets#front.carrier",
    "input",
    /input is in it twice/,
    "gearSets#front",
  ],
  ["more pinions than go round", D, "gearSets#front.pinions", 12, /they collide/],
  ["a CVT that calls itself an automatic", T, "unit.family", "automatic", /its ratio comes from pulleys/],
  [
    "an automatic that calls itself a dual-clutch",
    D,
    "unit.family",
    "dual-clutch",
    /no gear pairs with synchronisers/,
  ],
  ["a dual-clutch that calls itself a CVT", G, "unit.family", "cvt", /it has no pulleys/],
  [
    "engine braking that is another gear",
    W,
    "ranges#1.braking",
    ["hold"],
    /under engine braking gives another gear, 1\./,
    "ranges#1",
  ],
  // contradictions
  [
    "order relations in a circle",
    W,
    "orders",
    push(["centre-end-play", "<=", "output-end-play"]),
    /goes round in a circle/,
    "orders[2]",
  ],
  [
    "a seat in no chain",
    W,
    "seats",
    push({ id: "spare", name: "spare", series: "servo-pin" }),
    /stands in no chain/,
    "seats[7]",
  ],
  [
    "a series that no seat takes",
    W,
    "series",
    push({
      id: "odd",
      name: "odd washer",
      kind: "washer",
      tolerance: "0.001 in",
      sizes: [{ mark: "1", size: "0.050 in", part: "MW-7777" }],
    }),
    /no seat takes a odd washer/,
    "series[7]",
  ],
  [
    "a seat with nothing to choose",
    W,
    "seats#servo-pin.series",
    TAKEN_OUT,
    /give one of series, screw/,
    "seats[3]",
  ],
  ["a seat called after a chain", W, "seats#servo-pin.id", "band-travel", /has this name too/],
  ["a cut of less than a step", S, "seats#d2-cut.cut.most", "0.01 mm", /less than one step/],
  [
    "a screw that is told finer than it holds",
    W,
    "seats#band-screw.screw.tolerance",
    "0.040 in",
    /more than one step/,
  ],
  [
    "seats that wait for each other",
    W,
    "seats#rear-washer.first",
    ["front-washer"],
    /circle/,
    "seats[0].first",
  ],
  ["two plates chosen in one seat", S, "packs#h1.stack#2.count", 2, /a plate that is chosen is one/],
  [
    "a chosen plate that its pack’s clearance does not know",
    S,
    "packs#h1.stack#2.seat",
    "h2-plate",
    /does not know it/,
  ],
  [
    "a seat twice in a chain",
    S,
    "chains#h2-clearance.links#3",
    ["-", "seat", "h2-plate"],
    /stands in it twice/,
    "chains#h2-clearance.links",
  ],
  [
    "two grooves in one place",
    G,
    "seats#k1-groove.grooves#1.farther",
    "0 mm",
    /two grooves in one place/,
    "seats[1].grooves",
  ],
  [
    "a groove that takes another ring than the chain closes with",
    G,
    "packs#k2.grooves#0",
    (groove: unknown) => ({ ...(groove as object), ring: "ring-outer", alsoTakes: undefined }),
    /groove takes ring-outer/,
    "chains#k2-clearance.links",
  ],
  ["a shim in a groove", S, "packs#d1.grooves#0.ring", "shim-diff", /a shim does not spring into a groove/],
  ["two check balls in one place", D, "checkBalls#ball-2.at", [22, 30], /ball-2 lies where ball-1 lies/],
  [
    "two ranges that apply the same",
    D,
    "ranges#3",
    (range: unknown) => ({ ...(range as object), applied: ["h1", "d1"], ratio: 2.2841 }),
    /range 3 applies what range 2 does/,
    "ranges[2].applied",
  ],
  ["more bolts in than there are", D, "chains#input-end-play.read.bolts.count", 40, /40 bolts of a group of/],
  [
    "bolts tighter than ever",
    D,
    "chains#input-end-play.read.bolts.torque",
    "35 N·m",
    /tighter than they are ever/,
  ],
  [
    "a window that has no width",
    D,
    "procedures#level.window.to",
    "35 °C",
    /has no width/,
    "procedures[0].window",
  ],
  [
    "a window its fluid does not have",
    D,
    "procedures#level.window.to",
    "46 °C",
    /the fluid’s level is set at 35 to 45 °C/,
    "procedures[0].window",
  ],
  ["a position the lever has not", D, "procedures#level.turns#start.gate.lever", "S", /no position "S"/],
  ["the same turn twice", D, "procedures#level.turns#1.id", "fill", /stands twice/],
  ["a turn in no window", P, "procedures#level.turns#level.window", true, /no window to be done in/],
  [
    "nothing that is held",
    D,
    "procedures#level.turns#idle.gate",
    TAKEN_OUT,
    /nothing says what is held/,
    "procedures[0].turns[3].hold",
  ],
  [
    "revolutions the wrong way round",
    D,
    "procedures#level.turns#idle.gate.revs.from",
    "900 rpm",
    /from is above to/,
    "procedures[0].turns[3].gate.revs",
  ],
  ["a step behind a later one", D, "build#b-wash.after", ["b-d1"], /is listed after it/],
  ["a part laid where it does not go in", D, "build#b-h2.fit#0.part", "d1-piston", /does not go in here/],
  ["the same check twice", D, "build#b-wash.check#1.id", "every-passage-passes-air", /stands twice/],
  [
    "a soak nobody waits for",
    P,
    "build#b-shim-two.waits",
    TAKEN_OUT,
    /no step waits for it/,
    "build#b-levers-p.starts",
  ],
  [
    "a soak nobody begins",
    P,
    "build#b-levers-p.starts",
    TAKEN_OUT,
    /no step before it begins it/,
    "build#b-shim-two.waits",
  ],
  ["the thirtieth of February", D, "chains#d1-clearance.spec.checked", "2026-02-30", /is not a day/],
  // sizes nothing has
  ["a torque that tears the bolt off", D, "fasteners#pan-bolts.torque", "5000 N·m", /tears M6 off/],
  [
    "a pass that tears the bolt off",
    W,
    "fasteners#pan-bolts.passes",
    ["90 lbf·ft"],
    /tears 5\/16-18 off/,
    "fasteners#pan-bolts.passes#0",
  ],
  ["a plate as thick as a brick", S, "packs#d1.stack#0.thickness", "40 mm", /no plate is 40/],
  ["a clearance wide as a hand", D, "chains#d1-clearance.spec.max", "70 mm", /no pack clearance is 70/],
  ["air that blows the seal out", D, "airChecks#d1.pressure", "30 bar", /blows a seal out/],
  ["a bolt as long as the unit", T, "fasteners#body-bolts.places#0.length", "2000 mm", /no bolt is 2000/],
  ["three hundred litres", D, "fluid.fills#0.amount", "300 l", /go into no unit/],
  ["a level read at 300 °C", D, "fluid.level#0.to", "300 °C", /too hot/],
  ["a piston with the area of another", D, "packs#d1.piston.area", "11.2 cm²", /between its diameters/],
  ["a spring stronger than its piston", D, "packs#d1.spring.force", "98 kN", /it never applies/],
  ["an air check of a one-way clutch", D, "airChecks#d1.element", "f1", /a one-way clutch has no port/],
];

describe("each deliberate fault is told, at its place and with what to do", () => {
  it("is a table of more than sixty", () => expect(FAULTS.length).toBeGreaterThanOrEqual(60));

  test.each(FAULTS.map((fault) => [fault[0], fault[1], fault] as const))("%s (%s)", (_name, _unit, fault) => {
    const [, unit, path, change, words, told] = fault;
    const { document, at } = mutated(unit, path, change);
    const read = readBook(document);
    // What nobody knows yet is told and bars nothing.
    const problems: Problem[] = [...(read.ok ? [] : read.problems), ...read.warnings];
    const here = problems.filter((p) => words.test(`${p.message}; ${p.remedy}`.replaceAll("\n", " ")));
    expect(problems.map((p) => `${p.path}: ${p.message}; ${p.remedy}`).join("\n")).toMatch(words);
    const wanted = told?.includes("#") ? place(document, told).at : (told ?? at);
    expect(here.map((p) => p.path)).toContain(wanted);
    for (const { remedy } of problems) expect(remedy.length).toBeGreaterThan(5);
  });

  it("an order that no sizes can meet, though each result can be inside by itself", () => {
    const { document } = mutated(W, "orders", [["centre-end-play", "<=", "output-end-play"]]);
    const { node, key } = place(document, "series#washer-centre.sizes");
    const lists = node as Record<string | number, unknown[]>;
    // Of centre washers only those that leave it wide.
    lists[key] = (lists[key] ?? []).slice(0, 2);
    const read = readBook(document);
    expect(read.ok ? [] : read.problems.map(({ path, message }) => [path, message])).toEqual([
      ["orders[0]", expect.stringMatching(/no sizes bring both inside/)],
    ]);
  });

  it("a chain that no step reads any more", () => {
    const { document } = mutated(T, "build#b-align.chains", TAKEN_OUT);
    const { node, key } = place(document, "teardown#t-align.chains");
    delete (node as Record<string, unknown>)[key];
    const read = readBook(document);
    expect(read.ok ? [] : read.problems.map(({ path }) => path)).toEqual([
      place(document, "chains#pulley-alignment").at,
    ]);
  });

  it("tells several faults at once, in several sections", () => {
    const { document } = mutated(D, "ranges#2.ratio", 2.3);
    const twice = document as {
      fasteners: { count: number }[];
      parts: { number: string }[];
      colour?: string;
    };
    twice.colour = "red";
    (twice.fasteners[0] as { count: number }).count = 3;
    (twice.parts[1] as { number: string }).number = (twice.parts[0] as { number: string }).number;
    const read = readBook(document);
    expect(read.ok ? [] : read.problems.map(({ path }) => path)).toEqual([
      "colour",
      "ranges[1]",
      "parts[1].number",
      "fasteners[0].count",
    ]);
  });
});

test("an answer to a weak point that is done to no part is warned of, at its place", () => {
  const document = documentOf("marram-dunlin") as { weakPoints: { parts?: string[] }[] };
  delete document.weakPoints[0]!.parts;
  expect(readBook(document)).toMatchObject({
    ok: true,
    warnings: [{ path: "weakPoints[0].answers[0]", message: expect.stringMatching(/done to no part/) }],
  });
});

test("what steps recorded in words is read, each under an id of its own", () => {
  const document = documentOf("marram-dunlin") as { teardown: { id: string; record?: unknown[] }[] };
  document.teardown[0]!.record = ["learned values", "solenoid identities", "learned values"];
  const read = readBook(document);
  expect(read.ok && read.book.teardown?.[0]?.record).toEqual([
    { id: "t-read-learned-values", what: "learned values" },
    { id: "t-read-solenoid-identities", what: "solenoid identities" },
  ]);
});

test.each(UNITS)("%s is in order, without a warning", (unit) => {
  expect(readBook(documentOf(unit))).toMatchObject({ ok: true, warnings: [] });
});

/** Every place of a document, as steps to it. */
function places(value: unknown, path: (string | number)[] = []): (string | number)[][] {
  if (typeof value !== "object" || value === null) return [path];
  const inner = Array.isArray(value) ? value.map((v, i) => [i, v] as const) : Object.entries(value);
  return [path, ...inner.flatMap(([key, v]) => places(v, [...path, key]))];
}

test.each(UNITS)(
  "random mutations of %s never crash the check, and each refusal has a remedy",
  (unit) => {
    const all = places(documentOf(unit)).filter((path) => path.length > 0);
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.constantFrom(...all),
            fc.oneof(fc.jsonValue(), fc.constant(TAKEN_OUT), fc.constantFrom(...all)),
          ),
          {
            minLength: 1,
            maxLength: 4,
          },
        ),
        (changes) => {
          const document = documentOf(unit) as Record<string | number, unknown>;
          for (const [path, value] of changes) {
            let node: unknown = document;
            for (const step of path.slice(0, -1))
              node = (node as Record<string | number, unknown> | undefined)?.[step];
            const last = path.at(-1) ?? "";
            if (typeof node !== "object" || node === null) continue;
            // A value from elsewhere in the same book goes further than nonsense does.
            let given: unknown = value;
            if (Array.isArray(value) && all.includes(value as (string | number)[])) {
              given = document;
              for (const step of value as (string | number)[])
                given = (given as Record<string | number, unknown> | undefined)?.[step];
              given = given === undefined ? null : structuredClone(given);
            }
            if (value === TAKEN_OUT) delete (node as Record<string | number, unknown>)[last];
            else (node as Record<string | number, unknown>)[last] = given;
          }
          const read = readBook(JSON.parse(JSON.stringify(document)));
          for (const { message, remedy } of read.ok ? [] : read.problems) {
            expect(message).toBeTruthy();
            expect(remedy).toBeTruthy();
          }
        },
      ),
      { seed: 11, numRuns: samples(16) },
    );
  },
  60_000,
);
