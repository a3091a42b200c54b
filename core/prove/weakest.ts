import { nameIn, type Applied } from "../book";
import type { Build, BuildStep } from "../build";
import { readSpeeds, type Suspect, type Told } from "../diagnose";
import { isKind, type Fact, type Job } from "../fact";
import type { SpecLine } from "../measure";
import { compareMeasures, parseMeasure } from "../quantity";

/** Something of this build that was proven less well than the rest. */
export interface Weak {
  /** The same as long as the thing is. */
  key: string;
  /** The step it belongs to. */
  step: string;
  stepName: string;
  what: string;
  why: string;
  /** The elements it carries or feeds; none where it is of no one element. */
  elements: string[];
  /** How much it leaves open, by itself: higher is weaker. */
  weight: number;
  /** The chance that one of its elements is at fault, by what was told; 0 where nothing speaks for it. */
  chance: number;
  /** What tells whether it is at fault and costs least. */
  check: string;
}

/** How much is left open by how something was proven: what only a name stands for most, what was heard and not read least. */
const WEIGHTS = {
  signed: 5,
  otherwise: 4,
  skipped: 4,
  again: 3,
  unseen: 3,
  felt: 2,
  kept: 2,
  heard: 1,
} as const;

/**
 * Where this build was proven least, those first that what was told in the vehicle points at.
 *
 * @param lines of the spec sheet.
 * @param suspects what the diagnosis makes of what was told; empty when nothing was.
 */
export function weakestOf(
  job: Job,
  applied: Applied,
  build: Build,
  lines: readonly SpecLine[],
  suspects: readonly Suspect[],
): Weak[] {
  const chances = new Map<string, number>();
  for (const { cause, chance } of suspects)
    if (cause.kind === "element")
      chances.set(cause.element.id, (chances.get(cause.element.id) ?? 0) + chance);
  const found = build.steps.flatMap((one) => ofStep(one, job, applied, lines));
  return found
    .map((weak): Weak => {
      const chance = Math.max(0, ...weak.elements.map((id) => chances.get(id) ?? 0));
      return { ...weak, chance, check: leastCheck(weak, applied) };
    })
    .sort((a, b) => b.weight * (b.chance + FLOOR) - a.weight * (a.chance + FLOOR));
}

/** What nothing speaks for may be at fault all the same. */
const FLOOR = 0.02;

type Found = Omit<Weak, "chance" | "check">;

function ofStep(one: BuildStep, job: Job, applied: Applied, lines: readonly SpecLine[]): Found[] {
  const { step, asked, parts, fact, otherwise } = one;
  const elements = elementsOf(one, applied);
  const weak = (key: string, what: string, why: string, weight: number, own = elements): Found => ({
    key: `${step.id} ${key}`,
    step: step.id,
    stepName: step.name,
    what,
    why,
    elements: own,
    weight,
  });
  return [
    ...(fact?.body.did === "skipped"
      ? [weak("step", step.name, `skipped: ${fact.body.reason}`, WEIGHTS.skipped)]
      : []),
    ...otherwise.map(({ id, body }) => weak(id, step.name, `otherwise: ${body.reason}`, WEIGHTS.otherwise)),
    ...asked.flatMap((ask): Found[] => {
      const { key, name, kind, words, answer, fact: said } = ask;
      if (answer === "otherwise") return [weak(key, name, `otherwise: ${words}`, WEIGHTS.otherwise)];
      if (said && (isKind(said, "sign-off") || isKind(said, "waiver")))
        return [weak(key, name, words, WEIGHTS.signed)];
      if (kind === "check" && said && isKind(said, "check")) {
        if (said.body.said === "cannot-see") return [weak(key, name, words, WEIGHTS.unseen)];
        const times = notSo(job, said);
        return times > 0 ? [weak(key, name, `not so ${timesWords(times)}, then so`, WEIGHTS.again)] : [];
      }
      if (kind === "air" && said && isKind(said, "air")) {
        const failed = job.live.filter(
          (other) =>
            isKind(other, "air") && other.body.element === said.body.element && other.body.result !== "holds",
        ).length;
        if (failed > 0)
          return [
            weak(key, name, `did not hold ${timesWords(failed)}, then held`, WEIGHTS.again, [ask.subject]),
          ];
        return said.body.how === "heard"
          ? [weak(key, name, "heard to hold, not read", WEIGHTS.heard, [ask.subject])]
          : [];
      }
      if (kind === "figure" && isFelt(lines.find(({ id }) => id === ask.subject)))
        return [weak(key, name, "felt, not read", WEIGHTS.felt)];
      return [];
    }),
    ...parts.flatMap(({ part, is, findings }): Found[] => {
      const source = job.sources.get(part.id)?.body;
      if (source && source.from !== "bought")
        return [
          weak(
            `part ${part.id}`,
            part.name,
            source.from === "donor" ? "out of a donor unit" : source.from,
            WEIGHTS.kept,
          ),
        ];
      return is === "reuse" && findings.length > 0
        ? [weak(`part ${part.id}`, part.name, "used again with a finding on it", WEIGHTS.kept)]
        : [];
    }),
  ];
}

const timesWords = (times: number): string => (times === 1 ? "once" : `${times} times`);

const isFelt = (line: SpecLine | undefined): boolean => line?.built.standing === "said";

/** How often the same check was answered with no before. */
const notSo = (
  job: Job,
  { body: { step, check } }: Fact & { body: { step: string; check: string } },
): number =>
  job.live.filter(
    (other) =>
      isKind(other, "check") &&
      other.body.step === step &&
      other.body.check === check &&
      other.body.said === "no",
  ).length;

/** The elements whose plates, air or clearance a step is about; else those at the stations of its parts. */
function elementsOf({ step, parts }: BuildStep, { present, packs }: Applied): string[] {
  const chains = new Set(step.chains ?? []);
  const own = new Set([
    ...(step.airChecks ?? []),
    ...packs.filter(({ chain }) => chains.has(chain.id)).map(({ pack }) => pack.element),
    ...parts.flatMap(({ part }) =>
      present.packs
        .filter(({ stack }) => stack.some((entry) => entry.part === part.id))
        .map(({ element }) => element),
    ),
  ]);
  if (own.size > 0) return [...own];
  const stations = new Set(parts.flatMap(({ part }) => part.station ?? []));
  return present.packs.filter(({ station }) => stations.has(station)).map(({ element }) => element);
}

/** What tells most cheaply: a gauge on a tap leaves the unit in, air needs it out. */
function leastCheck({ elements, stepName }: Found, { present }: Applied): string {
  const tap = present.pressureTaps?.find(
    ({ element }) => element !== undefined && elements.includes(element),
  );
  if (tap) return `${tap.name} on a gauge: ${tap.where}`;
  const air = present.airChecks?.find(({ element }) => elements.includes(element));
  if (air) return `${nameIn(present, air.element)} with air: ${air.port}`;
  return `open as far as: ${stepName}`;
}

/** What was told in the vehicle that the diagnosis can be asked with: ranges that are not right, line pressure off. */
export function toldInVehicle(job: Job, { present }: Applied, lines: readonly SpecLine[]): Told[] {
  const driven = [...job.driven.values()].flatMap(({ body: { of, outcome } }) =>
    outcome === undefined
      ? []
      : of.filter((one) => one.startsWith("range:")).map((question): Told => ({ question, outcome })),
  );
  const speeds = [...job.driveSpeeds.values()].flatMap(({ body }) => readSpeeds(present, body)?.told ?? []);
  const pressures = (present.measurements ?? []).flatMap(({ id, kind, element, min }): Told[] => {
    const line = kind === "pressure" ? lines.find((one) => one.id === id) : undefined;
    const tap = present.pressureTaps?.find((one) => one.element === element);
    if (line?.built.standing !== "outside" || !tap) return [];
    return [{ question: `tap:${tap.id}`, outcome: isBelow(line.built.text, min) ? "low" : "high" }];
  });
  const asked = new Map([...driven, ...speeds, ...pressures].map((one) => [one.question, one]));
  return [...asked.values()];
}

function isBelow(text: string, min: string | undefined): boolean {
  const [is, least] = [text, min ?? ""].map((one) => parseMeasure(one.trim(), "pressure"));
  return is?.ok === true && least?.ok === true && compareMeasures(is.measure, least.measure) < 0;
}
