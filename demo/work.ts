import { middleOf } from "../core/reading";
import { buildOf, type BuildStep } from "../core/build";
import { LOOKED_AT, type Schools } from "../core/inspect";
import { itemsOf, itemsOfChain, worksheet, type House, type Worksheet } from "../core/measure";
import { nm } from "../core/quantity";
import type { Applied, AppliedChain } from "../core/book";
import { type CauseStanding, fold, type FactBody, type Job } from "../core/fact";
import { counts, waysOf } from "../core/steps";

const TRAYS = ["Front end", "Drums and packs", "Rear end"];
const trayId = (i: number): string => `tray-${i + 1}`;

/** What went wrong in one of the demo's units: an element's facings burnt, what was found behind it, and what else is beyond use. */
export interface Story {
  element?: string;
  /** Parts with the wear that shows the cause, or that condemns them. */
  beyond?: [part: string, wear: string][];
  cause?: { id: string; standing: CauseStanding; note: string };
}

/** A unit looked at part by part: good but for its story, its weak points answered. */
export function inspected({ scoped }: Pick<Applied, "scoped">, story?: Story): FactBody[] {
  const facts: FactBody[] = [{ kind: "good", parts: scoped.parts.map(({ id }) => id) }];
  for (const { id, answers } of scoped.weakPoints ?? [])
    facts.push({ kind: "weak-point", point: id, answer: answers[0]?.id ?? LOOKED_AT, note: "" });
  if (!story) return facts;
  const found = (part: string, wear: string): FactBody => ({
    kind: "finding",
    part,
    wear,
    severity: "beyond-use",
    sure: true,
    note: "",
    there: true,
  });
  const friction = scoped.packs
    .find(({ element }) => element === story.element)
    ?.stack.find(({ role }) => role === "friction")?.part;
  if (friction) facts.push(found(friction, "burnt"));
  for (const one of story.beyond ?? []) facts.push(found(...one));
  if (story.cause && story.element) {
    const { id, standing, note } = story.cause;
    facts.push({ kind: "cause", of: story.element, cause: id, standing, note, after: "" });
  }
  return facts;
}

/**
 * A unit taken down so far, as a careful builder leaves it: bolts out, parts in trays, plates counted, ways noted.
 *
 * @param share of the book's steps, 1 for all.
 */
export function tornDown(applied: Pick<Applied, "present" | "scoped" | "unseen">, share: number): FactBody[] {
  if (share === 0) return [];
  const steps = applied.scoped.teardown ?? [];
  const groups = new Map((applied.scoped.fasteners ?? []).map((group) => [group.id, group]));
  const parts = new Map(applied.scoped.parts.map((part) => [part.id, part]));
  const counted = counts(fold([]), applied);
  const facts: FactBody[] = TRAYS.map((name, i): FactBody => ({
    kind: "place",
    place: trayId(i),
    sort: "tray",
    name,
  }));
  const until = Math.round(steps.length * share);
  for (const [n, step] of steps.slice(0, until).entries()) {
    for (const id of step.fasteners ?? []) {
      const count = groups.get(id)?.count ?? 0;
      facts.push({ kind: "out", group: id, places: Array.from({ length: count }, (_, i) => i) });
    }
    for (const id of step.parts ?? []) {
      const part = parts.get(id);
      const way = part && waysOf(part)[0];
      if (way && part.of === undefined)
        facts.push({ kind: "sat", part: id, way, mark: "needs-none", note: "" });
      const one = counted.find(({ id: of }) => of === id);
      if (one) facts.push({ kind: "count", of: id, found: one.expected });
    }
    const to = trayId(Math.floor((n / steps.length) * TRAYS.length));
    facts.push({ kind: "step", step: step.id, did: "done", reason: "", to });
  }
  return facts;
}

/** One build step as a careful builder leaves it: everything it asks answered, then ticked. Figures are read or signed for elsewhere. */
export function stepBuilt({ step, asked, faces, plates, balls }: BuildStep): FactBody[] {
  const answers = asked.flatMap(({ kind, subject, answer }): FactBody[] => {
    if (answer === "answered") return [];
    switch (kind) {
      case "part":
        return [{ kind: "renewed", parts: [subject], there: true }];
      case "check":
        return [{ kind: "check", step: step.id, check: subject, said: "yes", note: "" }];
      case "balls":
        return subject === "laid" || subject === "turned-over"
          ? [{ kind: "laid", step: step.id, round: subject, balls: balls.map(({ id }) => id) }]
          : [];
      case "plates":
        return plates
          .filter(({ element }) => element === subject)
          .map(({ element, list }) => ({ kind: "plates", step: step.id, element, in: list.length }));
      case "air":
        return [{ kind: "air", element: subject, result: "holds", how: "heard", note: "" }];
      case "bolts":
      case "behind":
      case "soak":
      case "put":
      case "begin":
      case "figure":
        return [];
    }
  });
  const tight = faces.flatMap(({ group, rounds, left }) =>
    rounds.flatMap(({ id }): FactBody[] => {
      const places = [...(left.get(id) ?? [])];
      return places.length > 0
        ? [{ kind: "tightened", group: group.id, round: id, places, did: "tight" }]
        : [];
    }),
  );
  const begun = (step.starts ?? []).map((soak): FactBody => ({
    kind: "timer",
    step: step.id,
    soak,
    did: "started",
  }));
  return [...answers, ...tight, ...begun, { kind: "step", step: step.id, did: "done", reason: "" }];
}

/** Figures of a step as they are read when all is well: the middle of what the book allows, the piece that is in kept. */
export function figuresBuilt({ asked }: BuildStep, applied: Applied, house: House, job: Job): FactBody[] {
  return asked.flatMap(({ kind, subject, answer }): FactBody[] => {
    if (kind !== "figure" || answer === "answered") return [];
    const measurement = applied.scoped.measurements?.find(({ id }) => id === subject);
    if (measurement)
      return said("measurement", subject, measurement.max ?? measurement.min, itemsOf(measurement, applied));
    const chain = applied.chains.find((one) => one.chain.id === subject);
    return chain ? readBuilt(chain, worksheet(job, chain, house)) : [];
  });
}

/** A figure that is no series of readings, of each of what it is taken of. */
function said(
  of: "chain" | "measurement",
  id: string,
  text: string | undefined,
  items: readonly { name: string }[],
): FactBody[] {
  const base = { kind: "figure", of, id, phase: "built", note: "" } as const;
  const told = text === undefined ? ({ cannot: "felt-only-in-order" } as const) : { text };
  return items.length === 0
    ? [{ ...base, ...told }]
    : items.map(({ name: item }) => ({ ...base, ...told, item }));
}

function readBuilt(applied: AppliedChain, { fit, seats, choice, conditions, built }: Worksheet): FactBody[] {
  const { chain, spec } = applied;
  const middle = nm(Math.round((middleOf(spec) ?? 1_000_000) / 1_000) * 1_000);
  const items = itemsOfChain(applied);
  const readings = (items.length === 0 ? [undefined] : items.map(({ name }) => name)).flatMap(
    (item): FactBody[] => {
      const one: FactBody = {
        kind: "reading",
        chain: chain.id,
        phase: "built",
        fit,
        method: chain.read.with[0] ?? "dial",
        state: { ...spec.state, facings: spec.state.facings ?? "new" },
        reading: { kind: "single", value: middle },
        resolution: nm(1_000),
        unit: "mm",
        ...(item === undefined ? {} : { item }),
      };
      return [one, one, one];
    },
  );
  const predictions = [{ chain: chain.id, mean: middle, expanded: nm(50_000), chance: 1 }];
  return [
    ...(conditions.missing.length > 0
      ? [
          ...([
            { kind: "conditions", chain: chain.id, phase: "built", fit, met: [...conditions.missing] },
          ] satisfies FactBody[]),
        ]
      : []),
    ...readings,
    ...(chain.kind === "pack clearance" && !choice
      ? seats.map(({ link }): FactBody => ({
          kind: "choice",
          seat: link.id,
          fit: 0,
          kept: true,
          reason: "stays as it is",
          predictions,
        }))
      : []),
    ...(built.clocking ? said("chain", chain.id, undefined, [built.clocking.item]) : []),
  ];
}

/**
 * A unit built up so far: the steps that may be done one after the other, each with its answers, the next one begun.
 *
 * @param share of the steps, 1 for all.
 * @param say keeps what is said; what is asked next depends on it.
 * @param job the job as it stands after everything said.
 * @param goes whether a step is done yet.
 */
export function buildUp(
  applied: Applied,
  house: House & Schools,
  share: number,
  say: (body: FactBody) => void,
  job: () => Job,
  goes: (step: BuildStep) => boolean = () => true,
): void {
  const plan = (): BuildStep[] => buildOf(job(), applied, house, Infinity).steps;
  const many = Math.round(plan().length * share);
  for (let n = 0; n < many; n++) {
    const next = plan().find((one) => (one.at === "next" || one.at === "ahead") && goes(one));
    if (!next) return;
    for (const body of [...figuresBuilt(next, applied, house, job()), ...stepBuilt(next)]) say(body);
  }
}
