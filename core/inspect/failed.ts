import { partsOf, wearKind, type Applied, type Part, type PartKind } from "../book";
import type { FactOf, Job } from "../fact";

/** What failed and needs a cause: an element whose facings went, or another part that is beyond use. */
export interface Failed {
  /** An element’s id where it is one, else the part’s. */
  id: string;
  name: string;
  kind: "pack" | "band" | "one-way clutch" | "synchroniser" | "belt" | "cassette" | "hard part";
  /** Parts that belong to it: plates, drum, piston, seals. */
  parts: Part[];
  findings: FactOf<"finding">[];
  cause: FactOf<"cause"> | null;
}

/** Wear that no facing has by age alone. */
const BURNT = ["burnt", "glazed", "facing-debonded", "worn-to-the-groove-bottom", "flaked"];
/** Wear of a plate that comes of heat. */
const HEATED = [...BURNT, "heat-spots", "bluing"];
const KINDS: Readonly<Record<string, Failed["kind"]>> = {
  band: "band",
  "one-way clutch": "one-way clutch",
  synchroniser: "synchroniser",
  belt: "belt",
  cassette: "cassette",
};

/** Parts that break; wear alone needs no cause. */
const HARD: ReadonlySet<PartKind> = new Set([
  ...(["housing", "gear", "shaft", "carrier", "differential", "drum", "support", "sleeve", "pump"] as const),
  ...(["pump gears", "thrust bearing", "bearing", "taper bearing", "pulley", "fork", "damper"] as const),
  ...(["converter", "park lock"] as const),
]);

/** @returns every element and part that failed, in the book's order. */
export function failed(job: Job, applied: Pick<Applied, "present" | "scoped">): Failed[] {
  const { present, scoped } = applied;
  const as = (wear: string): string => wearKind(present, wear).as;
  const gravely = job.findings.filter(
    ({ body: { wear, severity, sure } }) =>
      sure && (severity === "beyond-use" || (severity === "worn" && BURNT.includes(as(wear)))),
  );
  const causeOf = (of: string): FactOf<"cause"> | null => job.causes.get(of) ?? null;
  const packs = scoped.packs.flatMap((pack): Failed[] => {
    const plates = new Set(pack.stack.map(({ part }) => part));
    const findings = gravely.filter(
      ({ body: { part, wear } }) => plates.has(part) && HEATED.includes(as(wear)),
    );
    if (findings.length === 0) return [];
    const parts = partsOf(present.parts, pack);
    return [
      { id: pack.element, name: pack.name, kind: "pack", parts, findings, cause: causeOf(pack.element) },
    ];
  });
  const others = scoped.parts.flatMap((part): Failed[] => {
    const hard = part.kind !== undefined && HARD.has(part.kind);
    const kind = hard ? "hard part" : KINDS[part.kind ?? ""];
    const findings = gravely.filter(
      ({ body: { part: id, wear, severity } }) =>
        id === part.id && (!hard || (severity === "beyond-use" && wearKind(present, wear).breaks === true)),
    );
    if (!kind || findings.length === 0) return [];
    const parts = present.parts.filter((one) => one.id === part.id || one.of === part.id);
    return [{ id: part.id, name: part.name, kind, parts, findings, cause: causeOf(part.id) }];
  });
  return [...packs, ...others];
}
