import { checkOf } from "./upcast";
import { lengthText, type Nm } from "../quantity";
import type { Book } from "./book";
import type { StackEntry } from "./format/pack";

/** What is made stronger on one unit, as somebody decided it. */
export interface Strengthening {
  ways: readonly string[];
  packs: readonly {
    element: string;
    plates: readonly {
      role: StackEntry["role"];
      part: string;
      thickness: Nm;
      count: number;
      number?: string;
    }[];
    min: Nm;
    max: Nm;
  }[];
  cuts: readonly { way: string; part: string; off: Nm }[];
}

/**
 * The book of a unit that is made stronger: its stacks, the limits of their clearances, the numbers of the plates that go in, and what must be seen
 * at the steps that build them.
 *
 * @param unit the book of this very unit, without what other versions have.
 */
export function strengthened(unit: Book, { ways: taken, packs, cuts }: Strengthening): Book {
  const plans = new Map(packs.map((one) => [one.element, one]));
  const ways = (unit.stronger ?? []).filter(({ id }) => taken.includes(id));
  const numbers = new Map([
    ...packs.flatMap((one) =>
      one.plates.flatMap(({ part, number }) => (number ? [[part, number] as const] : [])),
    ),
    ...ways.flatMap(({ part, number }) => (part && number ? [[part, number] as const] : [])),
  ]);
  const proofs = proofsByStep(unit, ways, cuts);
  return {
    ...unit,
    packs: unit.packs.map((pack) => {
      const plan = plans.get(pack.element);
      return plan ? { ...pack, stack: stackOf(pack.stack, plan.plates) } : pack;
    }),
    chains: unit.chains.map((chain) => {
      const plan =
        chain.kind === "pack clearance" && chain.of !== undefined ? plans.get(chain.of) : undefined;
      if (!plan) return chain;
      return {
        ...chain,
        spec: chain.spec.map((spec) => ({ ...spec, min: plan.min, max: plan.max, target: undefined })),
      };
    }),
    parts: unit.parts.map((part) => {
      const number = numbers.get(part.id);
      return number === undefined ? part : { ...part, number, instead: undefined };
    }),
    build: unit.build?.map((step) => {
      const more = proofs.get(step.id);
      return more ? { ...step, check: [...(step.check ?? []), ...more.map(checkOf)] } : step;
    }),
  };
}

/** A plate lies as the one whose place it takes; what is not named is left out. */
function stackOf(
  stock: readonly StackEntry[],
  plates: Strengthening["packs"][number]["plates"],
): StackEntry[] {
  const left = [...stock];
  return plates.flatMap(({ role, part, thickness, count }) => {
    const at = left.findIndex((entry) => entry.part === part && entry.role === role);
    const [entry] = at < 0 ? [] : left.splice(at, 1);
    return entry ? [{ ...entry, thickness, count }] : [];
  });
}

/** What the ways want seen, at the first step of the build that takes something of theirs; at the last where none does. */
function proofsByStep(
  unit: Book,
  ways: NonNullable<Book["stronger"]>,
  cuts: Strengthening["cuts"],
): Map<string, string[]> {
  const build = unit.build ?? [];
  const found = new Map<string, string[]>();
  for (const { id, elements, part, name, cut, work, proofs = [], oil } of ways) {
    const parts = new Set([
      ...unit.packs
        .filter(({ element }) => elements.includes(element))
        .flatMap(({ stack }) => stack.map((one) => one.part)),
      ...[part, cut?.part].flatMap((one) => one ?? []),
    ]);
    const step = build.find((one) => one.parts?.some((of) => parts.has(of))) ?? build.at(-1);
    if (!step) continue;
    const off = cuts.find(({ way }) => way === id)?.off;
    const machined =
      off === undefined ? [] : [`${lengthText(off, unit.unit.lengthUnit)} off${work ? `, ${work}` : ""}`];
    const seen = [...machined, ...proofs, ...(oil ? [oil] : [])].map((text) => `${name}: ${text}`);
    found.set(step.id, [...(found.get(step.id) ?? []), ...seen]);
  }
  return found;
}
