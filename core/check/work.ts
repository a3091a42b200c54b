import { compareMeasures, measureText } from "../quantity";
import { inDepth, isInReach, wrenchesOf, type Book, type Step, type Tool } from "../book";
import { once, versions, type Check, type Say } from "./check";

type Phase = "teardown" | "build";

/** Steps in an order that can be carried out, at every depth and in every version. */
export const steps: Check = {
  reads: ["teardown", "build", "parts", "depths", "fasteners"],
  check(book, conditions, say) {
    const tell = once(say);
    for (const { unit, words } of versions(book, conditions, ["teardown", "build", "parts", "fasteners"])) {
      for (const depth of book.depths)
        removal(book, inDepth(unit, [depth]), `at depth ${depth}${words}`, tell);
    }
    (["teardown", "build"] as const).forEach((phase) =>
      book[phase]?.forEach((step, i) => {
        if (step.onlyIf?.is === "replace" && phase === "teardown")
          say(`${phase}[${i}].onlyIf`, "nothing is replaced while taking down", "move the step to the build");
      }),
    );
  },
};

const pathOf = (book: Book, phase: Phase, step: Step | undefined): string =>
  `${phase}[${book[phase]?.findIndex(({ id }) => id === step?.id) ?? 0}]`;

/** A part comes out after everything that holds it, and only once. */
function removal(book: Book, work: Book, where: string, tell: Say): void {
  const taken = work.teardown ?? [];
  const out = new Map<string, number>();
  const placeOf = (id: string): number =>
    taken.findIndex((s) => s.parts?.includes(id) || s.fasteners?.includes(id));
  taken.forEach((step, i) => {
    for (const id of step.parts ?? []) {
      const before = out.get(id);
      if (before !== undefined)
        tell(
          `${pathOf(book, "teardown", step)}.parts`,
          `${id} is already out ${where}`,
          `take it out here or in ${taken[before]?.id}`,
        );
      out.set(id, i);
      for (const holder of book.parts.find((p) => p.id === id)?.heldBy ?? []) {
        const at = placeOf(holder);
        if (at > i)
          tell(
            `${pathOf(book, "teardown", step)}.parts`,
            `${id} comes out before ${holder}, which holds it ${where}`,
            `move it behind ${taken[at]?.id}`,
          );
      }
    }
  });
  taken.forEach((step, i) => {
    for (const id of step.leave ?? [])
      if (placeOf(id) <= i)
        tell(
          `${pathOf(book, "teardown", step)}.leave`,
          `${id} is left for now, and no later step takes it ${where}`,
          "name it in a later step, or leave it out here",
        );
  });
  holders(book, work, where, tell);
  bolts(book, work, where, tell);
  const fitted = new Set((work.build ?? []).flatMap(({ parts = [] }) => parts));
  if (!work.build || work.build.length === 0) return;
  for (const [id, i] of out)
    if (!fitted.has(id) && work.parts.some((p) => p.id === id))
      tell(
        `${pathOf(book, "teardown", taken[i])}.parts`,
        `${id} comes out and no build step puts one in ${where}`,
        "name it in the build step that fits it",
        true,
      );
}

/** What holds a part comes off before it, and goes in behind it. */
function holders(book: Book, work: Book, where: string, tell: Say): void {
  const { teardown = [], build = [] } = work;
  const has = (id: string) => (step: Step) =>
    step.parts?.includes(id) === true || step.fasteners?.includes(id) === true;
  const known = new Set([...work.parts, ...(work.fasteners ?? [])].map(({ id }) => id));
  for (const part of work.parts) {
    const off = teardown.find((step) => step.parts?.includes(part.id));
    const at = build.findIndex((step) => step.parts?.includes(part.id));
    for (const holder of part.heldBy ?? []) {
      if (!known.has(holder)) continue;
      if (off && !teardown.some(has(holder)))
        tell(
          `parts[${book.parts.findIndex(({ id }) => id === part.id)}].heldBy`,
          `${holder} holds ${part.id} and no step takes it off ${where}`,
          `name ${holder} in a step before ${off.id}, or take it out of heldBy`,
        );
      const before = build.findIndex(has(holder));
      if (at >= 0 && before >= 0 && before < at)
        tell(
          `${pathOf(book, "build", build[at])}.parts`,
          `${part.id} goes in behind ${holder}, which holds it ${where}`,
          `move it before ${build[before]?.id}`,
        );
    }
  }
}

/** Bolts come out once, and go in again. */
function bolts(book: Book, work: Book, where: string, tell: Say): void {
  for (const phase of ["teardown", "build"] as const) {
    const known = new Map<string, string>();
    for (const step of work[phase] ?? [])
      for (const group of step.fasteners ?? []) {
        const before = known.get(group);
        if (before !== undefined)
          tell(
            `${pathOf(book, phase, step)}.fasteners`,
            `${group} are already ${phase === "teardown" ? "out" : "in"} ${where}`,
            `name them here or in ${before}`,
          );
        known.set(group, step.id);
      }
  }
  const { teardown = [], build = [] } = work;
  if (build.length === 0) return;
  const [out, back] = [teardown, build].map(
    (list) => new Set(list.flatMap(({ fasteners = [] }) => fasteners)),
  );
  for (const group of out ?? [])
    if (!back?.has(group))
      tell(
        `${pathOf(
          book,
          "teardown",
          teardown.find(({ fasteners }) => fasteners?.includes(group)),
        )}.fasteners`,
        `${group} come out and no build step puts them in ${where}`,
        "name them in the build step that tightens them",
      );
}

/** A pack's clearance is read, and the pack tried with air, once all its plates are in. */
export const packsBuilt: Check = {
  reads: ["build", "chains", "packs", "parts", "depths"],
  check(book, conditions, say) {
    const tell = once(say);
    for (const { unit, words } of versions(book, conditions, ["build", "chains", "packs", "parts"]))
      for (const depth of book.depths) {
        const work = inDepth(unit, [depth]);
        const build = work.build ?? [];
        for (const pack of work.packs) {
          const of = new Set(pack.stack.map(({ part }) => part));
          const last = build.findLastIndex(({ parts = [] }) => parts.some((id) => of.has(id)));
          const tooEarly = (
            key: "chains" | "airChecks",
            what: string,
            isOf: (id: string) => boolean,
          ): void => {
            const at = build.findIndex((step) => step[key]?.some(isOf));
            if (at >= 0 && last > at)
              tell(
                `${pathOf(book, "build", build[at])}.${key}`,
                `${what} ${pack.element} before ${build[last]?.id} has put its last plates in, at depth ${depth}${words}`,
                `move it behind ${build[last]?.id}`,
              );
          };
          tooEarly("chains", "reads the clearance of", (id) =>
            work.chains.some((chain) => chain.id === id && chain.of === pack.element),
          );
          tooEarly("airChecks", "tries with air", (id) => id === pack.element);
        }
      }
  },
};

/** A chain in scope at a depth is read by some step of that depth. */
export const wrenches: Check = {
  reads: ["fasteners", "build", "tools"],
  check({ fasteners = [], build = [], tools = [] }, _conditions, say) {
    const all = wrenchesOf(tools);
    if (all.length === 0) return;
    const names = (list: readonly Tool[]): string => list.map(({ name }) => name).join(", ");
    all.forEach(({ id, reach }) => {
      if (reach && compareMeasures(reach.from, reach.to) >= 0)
        say(
          `tools[${tools.findIndex((one) => one.id === id)}].reach.to`,
          "not above where it begins",
          "swap or correct them",
        );
    });
    fasteners.forEach(({ torque, retorque }, i) => {
      for (const [path, one] of [
        ["torque", torque],
        ["retorque.torque", retorque?.torque],
      ] as const)
        if (one && !all.some((wrench) => isInReach(wrench, one)))
          say(
            `fasteners[${i}].${path}`,
            `no wrench of the book reaches ${measureText(one)}`,
            `there are: ${names(all)}`,
          );
    });
    build.forEach((step, s) => {
      const own = all.filter(({ id }) => step.tools?.includes(id));
      if (own.length === 0) return;
      for (const id of step.fasteners ?? []) {
        const torque = fasteners.find((group) => group.id === id)?.torque;
        if (torque && all.some((one) => isInReach(one, torque)) && !own.some((one) => isInReach(one, torque)))
          say(
            `build[${s}].tools`,
            `none of its wrenches reaches the ${measureText(torque)} of ${id}`,
            `take ${names(all.filter((one) => isInReach(one, torque)))}`,
          );
      }
    });
  },
};

export const chainSteps: Check = {
  reads: ["teardown", "build", "chains", "depths"],
  check(book, conditions, say) {
    // What reads it may stand in the half that is not written yet.
    if (!book.teardown?.length || !book.build?.length) return;
    const tell = once(say);
    for (const { unit, words } of versions(book, conditions, ["teardown", "build", "chains"])) {
      for (const depth of book.depths) {
        const work = inDepth(unit, [depth]);
        const read = new Set(
          [...(work.teardown ?? []), ...(work.build ?? [])].flatMap(({ chains = [] }) => chains),
        );
        for (const chain of work.chains) {
          if (read.has(chain.id)) continue;
          tell(
            `chains[${book.chains.findIndex(({ id }) => id === chain.id)}]`,
            `belongs to depth ${depth} and no step there reads it${words}`,
            `name it in a step's chains, or take "${depth}" out of its depth`,
          );
        }
      }
    }
  },
};

export const service: Check = {
  reads: ["fluid", "relearns", "airChecks", "elements"],
  check({ fluid, relearns = [], airChecks = [], elements }, _conditions, say) {
    fluid?.level.forEach(({ from, to }, i) => {
      if (compareMeasures(from, to) >= 0)
        say(`fluid.level[${i}].to`, "the window ends where it begins", "make `to` warmer than `from`");
    });
    relearns.forEach(({ order }, i) => {
      const first = relearns.findIndex((other) => other.order === order);
      if (first !== i)
        say(`relearns[${i}].order`, `${order} is already ${relearns[first]?.id}`, "give each its own place");
    });
    airChecks.forEach(({ element }, i) => {
      const kind = elements.find(({ id }) => id === element)?.kind;
      if (kind === "one-way clutch")
        say(`airChecks[${i}].element`, "a one-way clutch has no port", "name a clutch, brake or band");
    });
  },
};
