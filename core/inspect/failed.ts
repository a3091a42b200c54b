import type { Applied, Part } from "../book";
import type { FactOf, Job } from "../job";

/** What failed and needs a cause: an element whose facings went, or another part that is beyond use. */
export interface Failed {
  /** An element’s id where it is one, else the part’s. */
  of: string;
  name: string;
  kind: "pack" | "band" | "one-way clutch" | "synchroniser" | "belt" | "cassette";
  /** Parts that belong to it: plates, drum, piston, seals. */
  parts: Part[];
  findings: FactOf<"finding">[];
  cause: FactOf<"cause"> | null;
}

/** Wear that no facing has by age alone. */
const BURNT = ["burnt", "glazed", "facing debonded", "worn to the groove bottom", "flaked"];
const KINDS: Readonly<Record<string, Failed["kind"]>> = {
  band: "band",
  "one-way clutch": "one-way clutch",
  synchroniser: "synchroniser",
  belt: "belt",
  cassette: "cassette",
};

/** @returns every element and part that failed, in the book's order. */
export function failed(job: Job, applied: Pick<Applied, "unit" | "work">): Failed[] {
  const { unit, work } = applied;
  const gravely = job.work.findings.filter(
    ({ body: { wear, severity, sure } }) =>
      sure && (severity === "beyond use" || (severity === "worn" && BURNT.includes(wear))),
  );
  const causeOf = (of: string): FactOf<"cause"> | null => job.work.causes.get(of) ?? null;
  const packs = work.packs.flatMap((pack): Failed[] => {
    const plates = new Set(pack.stack.map(({ part }) => part));
    const findings = gravely.filter(
      ({ body: { part, wear } }) =>
        plates.has(part) && (BURNT.includes(wear) || wear === "heat spots" || wear === "bluing"),
    );
    if (findings.length === 0) return [];
    const parts = unit.parts.filter(
      (part) => plates.has(part.id) || stationOf(unit.parts, part) === pack.station,
    );
    return [
      { of: pack.element, name: pack.name, kind: "pack", parts, findings, cause: causeOf(pack.element) },
    ];
  });
  const others = work.parts.flatMap((part): Failed[] => {
    const kind = KINDS[part.kind ?? ""];
    const findings = gravely.filter(({ body }) => body.part === part.id);
    if (!kind || findings.length === 0) return [];
    const parts = unit.parts.filter((one) => one.id === part.id || one.of === part.id);
    return [{ of: part.id, name: part.name, kind, parts, findings, cause: causeOf(part.id) }];
  });
  return [...packs, ...others];
}

/** The station a part sits at: its own, or its assembly's. */
export function stationOf(parts: readonly Part[], part: Part): string | undefined {
  if (part.station !== undefined) return part.station;
  const whole = part.of === undefined ? undefined : parts.find(({ id }) => id === part.of);
  return whole ? stationOf(parts, whole) : undefined;
}
