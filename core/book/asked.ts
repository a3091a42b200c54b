import type { Book } from "./book";
import type { Step } from "./format/work";

/** Something seen to in a step, and answered for. */
export type StepCheck = NonNullable<Step["check"]>[number];

/**
 * What is seen to in a build step: what it names itself, and where the ring it reads a clearance with goes into a groove that takes another’s ring too, which ring
 * went in. Asked again with another piece in.
 */
export function checksOf(
  { packs, chains, series }: Pick<Book, "packs" | "chains" | "series">,
  step: Step,
): StepCheck[] {
  const read = new Set(
    chains.flatMap(({ id, of }) => (step.chains?.includes(id) && of !== undefined ? [of] : [])),
  );
  const named = (id: string): string => series.find((one) => one.id === id)?.name ?? id;
  const rings = packs
    .filter(({ element }) => read.has(element))
    .flatMap(({ element, grooves = [] }) =>
      grooves.flatMap(({ id, ring, alsoTakes = [] }): StepCheck[] =>
        alsoTakes.length === 0
          ? []
          : [
              {
                id: `ring-in-${id}`,
                what: `${element.toUpperCase()}: a ${named(ring)} is in, its mark read; a ${alsoTakes.map(named).join(", a ")} goes into this groove too`,
                no: "Out with it; the other pack has its ring: look there too.",
                last: true,
              },
            ],
      ),
    );
  return [...(step.check ?? []), ...rings];
}
