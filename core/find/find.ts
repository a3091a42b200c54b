import { lengthText } from "../quantity";
import { counts, platesOf } from "../pack";
import {
  houseTorque,
  measurementWords,
  shownIn,
  specWords,
  torqueWords,
  usedTorque,
  type System,
} from "../book";
import type { Applied } from "../book";

/** One thing that can be asked of a book, with its answer. */
export interface Answer {
  /** Unique in one book; also where it stands on its page. */
  id: string;
  title: string;
  answer: string;
  /** The page of the book that it stands on. */
  page: "chains" | "fasteners" | "packs" | "parts" | "steps" | "service" | "train";
  /** Other words it may be asked by. */
  words: string;
}

/**
 * Everything the book answers for this configuration, in the unit the person uses. Whatever searches it, these are the answers.
 *
 * @param system millimetres or inches; torques, pressures and temperatures follow.
 */
export function answers(applied: Applied, system: System): Answer[] {
  const { unit, chains, house } = applied;
  const found: Answer[] = [];
  const say = (
    page: Answer["page"],
    kind: string,
    id: string,
    title: string,
    answer: string,
    words = "",
  ): void => void found.push({ id: `${kind}-${id}`, page, title, answer, words: `${kind} ${words}` });

  for (const applies of chains) {
    const { chain, series } = applies;
    const pack = unit.packs.find(({ element }) => element === chain.of);
    const of = pack ? `${pack.element} ${pack.name} ${akaOf(applied, pack.element)}` : "";
    say(
      "chains",
      "chain",
      chain.id,
      chain.name,
      specWords(applies, system),
      `${chain.kind} spec limit ${of} ${series?.name ?? ""}`,
    );
  }
  for (const group of unit.fasteners ?? []) {
    const own = houseTorque(group, house);
    const torque = own
      ? `${usedTorque(group, house, system)} (house; the book ${torqueWords(group, system)})`
      : torqueWords(group, system);
    const extra = [
      `${group.count} × ${group.size}`,
      group.thread === "dry" ? "" : group.thread,
      group.oneTime ? "new ones only" : "",
    ];
    say(
      "fasteners",
      "fastener",
      group.id,
      group.name,
      [torque, ...extra].filter(Boolean).join(", "),
      "torque bolt bolts tighten",
    );
  }
  if (unit.checkBalls?.length)
    say(
      "fasteners",
      "balls",
      "all",
      "Check balls",
      `${unit.checkBalls.length} in this version`,
      "check ball count how many steel plastic",
    );
  for (const pack of unit.packs) {
    const { frictions, steels } = counts(pack.stack);
    say(
      "packs",
      "pack",
      pack.element,
      `${pack.element.toUpperCase()} plates`,
      `${frictions} frictions, ${steels} steels`,
      `${pack.name} ${akaOf(applied, pack.element)} count stack clutch pack`,
    );
  }
  for (const series of unit.series)
    say(
      "chains",
      "series",
      series.id,
      `${series.name} sizes`,
      `${series.sizes.length} sizes, ${lengthText(series.sizes[0]?.size ?? (0 as never), system)} to ${lengthText(series.sizes.at(-1)?.size ?? (0 as never), system)}`,
      `${series.kind} selective marks thickness`,
    );
  for (const measurement of unit.measurements ?? [])
    say(
      "service",
      "measurement",
      measurement.id,
      measurement.name,
      [measurementWords(measurement, system), measurement.condition].filter(Boolean).join(", "),
      measurement.kind,
    );
  for (const { id, applied: on, braking = [], ratio } of unit.ranges)
    say(
      "train",
      "range",
      id,
      `Range ${id}`,
      `${[...on, ...braking.map((b) => `(${b})`)].join(" + ").toUpperCase()}, ${ratio.toFixed(4)}`,
      "gear ratio apply chart applied elements",
    );
  for (const { element, port, pressure, expect } of unit.airChecks ?? [])
    say(
      "fasteners",
      "air",
      element,
      `Air check ${element.toUpperCase()}`,
      `${port}, ${shownIn(pressure, system)}: ${expect}`,
      "port",
    );
  for (const { id, name, where, thread } of unit.pressureTaps ?? [])
    say("service", "tap", id, `${name} tap`, `${where}, ${thread}`, "port gauge");
  for (const { id, what, time } of unit.soaks ?? [])
    say("service", "soak", id, what, `at least ${shownIn(time, system)}`, "soak soaking time sizing");
  for (const { what, amount } of unit.fluid?.fills ?? [])
    say(
      "service",
      "fill",
      what,
      `Fluid, ${what}`,
      `${shownIn(amount, system)} of ${unit.fluid?.name ?? ""}`,
      "fill capacity oil amount",
    );
  for (const [i, { from, to, revs, wait, how }] of (unit.fluid?.level ?? []).entries())
    say(
      "service",
      "level",
      `${i}`,
      "Fluid level",
      `${shownIn(from, system)} to ${shownIn(to, system)}, ${shownIn(revs, system)}, wait ${shownIn(wait, system)}: ${how}`,
      "temperature window check oil",
    );
  for (const { id, name, number, count: listed = 1, oneTime, of } of unit.parts) {
    const count = platesOf(unit.packs, id) ?? listed;
    const assembly = unit.parts.find((part) => part.id === of)?.name;
    const extra = [
      number,
      count > 1 ? `${count} of them` : "",
      oneTime ? "one-time" : "",
      assembly ? `in the ${assembly}` : "",
    ];
    say("parts", "part", id, name, extra.filter(Boolean).join(", "), "number");
  }
  for (const { id, name, complaint, answers: allowed } of unit.weakPoints ?? [])
    say(
      "service",
      "weak",
      id,
      name,
      allowed.map((answer) => answer.name).join(" / "),
      `weak point ${complaint}`,
    );
  for (const { id, name, needs } of unit.relearns ?? [])
    say("service", "relearn", id, name, needs.join(", "), "relearn adaptation routine");
  return found;
}

const akaOf = ({ unit }: Applied, element: string): string =>
  unit.elements.find(({ id }) => id === element)?.aka.join(" ") ?? "";
