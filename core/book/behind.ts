import type { Book } from "./book";
import type { Step } from "./format/work";

type Work = Pick<Book, "build" | "parts" | "packs" | "chains">;

/** What has to be behind each build step. */
export interface Behind {
  /** The steps it waits for itself. */
  direct: ReadonlyMap<string, readonly string[]>;
  /** Everything with which it is laid open: those, what began the soaks it waits for, and all that is behind them. */
  all: ReadonlyMap<string, ReadonlySet<string>>;
}

const known = new WeakMap<object, Behind>();

/**
 * What each build step waits for, and so what is laid open with a step that is undone: the steps it names itself; those that fit what its own
 * parts and bolts hold; and those that put in the plates of a pack whose clearance it reads or which it tries with air. Nothing else: steps that do not touch
 * each other may be done in any order, by several people.
 */
export function behindOf(unit: Work): Behind {
  const build = unit.build ?? [];
  const found = known.get(build);
  if (found) return found;
  const fits = new Map<string, string[]>();
  for (const { id, parts = [], fasteners = [] } of build)
    for (const thing of [...parts, ...fasteners]) fits.set(thing, [...(fits.get(thing) ?? []), id]);
  const heldBy = new Map<string, string[]>();
  for (const { id, heldBy: holders = [] } of unit.parts)
    for (const holder of holders) heldBy.set(holder, [...(heldBy.get(holder) ?? []), id]);
  const place = new Map(build.map(({ id }, i) => [id, i]));
  const direct = new Map(
    build.map((step, i) => {
      const things = [
        ...[...(step.parts ?? []), ...(step.fasteners ?? [])].flatMap((id) => heldBy.get(id) ?? []),
        ...packsOf(unit, step).flatMap(({ stack }) => stack.map(({ part }) => part)),
      ];
      const steps = new Set([...(step.after ?? []), ...things.flatMap((thing) => fits.get(thing) ?? [])]);
      // Only what stands before it: a part that goes in again later, as a seal on its own, holds nobody up.
      const before = [...steps].filter((id) => (place.get(id) ?? i) < i);
      return [step.id, before.sort((a, b) => (place.get(a) ?? 0) - (place.get(b) ?? 0))] as const;
    }),
  );
  const all = new Map<string, ReadonlySet<string>>();
  for (const [i, { id, waits = [] }] of build.entries()) {
    const soaking = build
      .slice(0, i)
      .filter(({ starts = [] }) => starts.some((soak) => waits.includes(soak)));
    const steps = [...(direct.get(id) ?? []), ...soaking.map((one) => one.id)];
    all.set(id, new Set(steps.flatMap((one) => [one, ...(all.get(one) ?? [])])));
  }
  const made = { direct, all };
  known.set(build, made);
  return made;
}

/** The packs whose clearance a step reads, or which it tries with air. */
const packsOf = ({ packs, chains }: Work, { chains: read = [], airChecks = [] }: Step): Work["packs"] =>
  packs.filter(
    ({ element }) =>
      airChecks.includes(element) ||
      chains.some(
        (chain) => chain.of === element && chain.kind === "pack clearance" && read.includes(chain.id),
      ),
  );
