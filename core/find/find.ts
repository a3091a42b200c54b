import { lengthText } from "../quantity";
import { counts, platesOf } from "../pack";
import {
  houseTorque,
  measurementWords,
  shownIn,
  specWords,
  torqueWords,
  usedTorque,
  type UnitSystem,
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
export function answers(applied: Applied, system: UnitSystem): Answer[] {
  const { present, chains, house } = applied;
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
    const { chain, seats } = applies;
    const pack = present.packs.find(({ element }) => element === chain.of);
    const of = pack ? `${pack.element} ${pack.name} ${akaOf(applied, pack.element)}` : "";
    say(
      "chains",
      "chain",
      chain.id,
      chain.name,
      specWords(applies, system),
      `${chain.kind} spec limit ${of} ${seats.map(({ name }) => name).join(" ")}`,
    );
  }
  for (const group of present.fasteners ?? []) {
    const own = houseTorque(group, house);
    const torque = own
      ? `${usedTorque(group, house, system)} (house; the book ${torqueWords(group, system)})`
      : torqueWords(group, system);
    const extra = [
      `${group.count} × ${group.size}`,
      group.thread === "dry" ? "" : (group.thread ?? ""),
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
  if (present.checkBalls?.length)
    say(
      "fasteners",
      "balls",
      "all",
      "Check balls",
      `${present.checkBalls.length} in this version`,
      "check ball count how many steel plastic",
    );
  for (const pack of present.packs) {
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
  for (const series of present.series)
    say(
      "chains",
      "series",
      series.id,
      `${series.name} sizes`,
      `${series.sizes.length} sizes, ${lengthText(series.sizes[0]?.size ?? (0 as never), system)} to ${lengthText(series.sizes.at(-1)?.size ?? (0 as never), system)}`,
      `${series.kind} selective marks thickness`,
    );
  for (const measurement of present.measurements ?? [])
    say(
      "service",
      "measurement",
      measurement.id,
      measurement.name,
      [measurementWords(measurement, system), measurement.condition].filter(Boolean).join(", "),
      measurement.kind,
    );
  for (const { id, applied: on, braking = [], ratio } of present.ranges)
    say(
      "train",
      "range",
      id,
      `Range ${id}`,
      `${[...on, ...braking.map((b) => `(${b})`)].join(" + ").toUpperCase()}, ${ratio.toFixed(4)}`,
      "gear ratio apply chart applied elements",
    );
  for (const { element, port, pressure, expect } of present.airChecks ?? [])
    say(
      "fasteners",
      "air",
      element,
      `Air check ${element.toUpperCase()}`,
      `${port}, ${shownIn(pressure, system)}: ${expect}`,
      "port",
    );
  for (const { id, name, where, thread } of present.pressureTaps ?? [])
    say("service", "tap", id, `${name} tap`, `${where}, ${thread}`, "port gauge");
  for (const { id, what, time } of present.soaks ?? [])
    say("service", "soak", id, what, `at least ${shownIn(time, system)}`, "soak soaking time sizing");
  for (const { what, amount } of present.fluid?.fills ?? [])
    say(
      "service",
      "fill",
      what,
      `Fluid, ${what}`,
      `${shownIn(amount, system)} of ${present.fluid?.name ?? ""}`,
      "fill capacity oil amount",
    );
  for (const [i, { from, to, revs, wait, how }] of (present.fluid?.level ?? []).entries())
    say(
      "service",
      "level",
      `${i}`,
      "Fluid level",
      `${shownIn(from, system)} to ${shownIn(to, system)}, ${shownIn(revs, system)}, wait ${shownIn(wait, system)}: ${how}`,
      "temperature window check oil",
    );
  for (const { id, name, number, count: listed = 1, oneTime, of } of present.parts) {
    const count = platesOf(present.packs, id) ?? listed;
    const assembly = present.parts.find((part) => part.id === of)?.name;
    const extra = [
      number,
      count > 1 ? `${count} of them` : "",
      oneTime ? "one-time" : "",
      assembly ? `in the ${assembly}` : "",
    ];
    say("parts", "part", id, name, extra.filter(Boolean).join(", "), "number");
  }
  for (const { id, name, complaint, answers: allowed } of present.weakPoints ?? [])
    say(
      "service",
      "weak",
      id,
      name,
      allowed.map((answer) => answer.name).join(" / "),
      `weak point ${complaint}`,
    );
  for (const { id, text, learnt } of present.tips ?? [])
    say("service", "tip", id, text, learnt ?? "", "tip next time learnt");
  for (const { id, elements, name, harsh, proofs = [] } of present.stronger ?? [])
    say(
      "packs",
      "way",
      id,
      name,
      [harsh && `felt: ${harsh}`, ...proofs].filter(Boolean).join("; ") || `for ${elements.join(", ")}`,
      "stronger upgrade torque capacity more plates",
    );
  for (const { id, name, needs } of present.relearns ?? [])
    say("service", "relearn", id, name, needs.join(", "), "relearn adaptation routine");
  return found;
}

const akaOf = ({ present }: Applied, element: string): string =>
  present.elements.find(({ id }) => id === element)?.aka.join(" ") ?? "";
