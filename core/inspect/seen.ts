import { wearKind, type Applied, type Part, type WearId } from "../book";
import { figures, worksheet, type Figure } from "../measure";
import type { FoundWrong, Job } from "../fact";
import type { DecisionRule } from "../reading";
import type { Failed } from "./failed";

/** The answer to a weak point that says it is not so here. */
export const LOOKED_AT = "looked-at-in-order";

/** What is known about one failure, asked in the bench's terms. */
export class Seen {
  constructor(
    readonly job: Job,
    private readonly applied: Applied,
    private readonly rule: DecisionRule,
    readonly of: Failed,
  ) {}

  /** Whether a kind of part of this failure shows a kind of wear; null while none of them was looked at. */
  worn(
    kinds: readonly string[],
    wear: readonly WearId[] | "any",
    among: readonly Part[] = this.of.parts,
  ): boolean | null {
    const parts = among.filter(({ kind }) => kinds.includes(kind ?? ""));
    if (parts.length === 0) return null;
    const ids = new Set(parts.map(({ id }) => id));
    const { findings, good } = this.job;
    const is = (one: string): boolean => wear === "any" || wear.some((id) => id === this.as(one));
    const found = findings.some(
      ({ body }) => ids.has(body.part) && is(body.wear) && body.severity !== "trace" && body.sure,
    );
    if (found) return true;
    return parts.some(({ id }) => good.has(id) || findings.some(({ body }) => body.part === id && body.sure))
      ? false
      : null;
  }
  /** The kind of the catalogue a kind of wear counts as. */
  private as = (wear: string): string => wearKind(this.applied.present, wear).as;
  /** Whether it has parts of such kinds at all. */
  has = (...kinds: string[]): boolean => this.of.parts.some(({ kind }) => kinds.includes(kind ?? ""));
  /** Any part of the unit, not only of this failure. */
  anywhere = (kinds: readonly string[], wear: readonly WearId[] | "any"): boolean | null =>
    this.worn(kinds, wear, this.applied.scoped.parts);

  /** Every figure as found. */
  private get figures(): readonly Figure[] {
    return figures(this.job, this.applied, this.rule, "found");
  }

  /** Whether a figure of this kind is outside; null while none was taken. */
  outside(kinds: readonly string[], parts?: ReadonlySet<string>): boolean | null {
    const taken = this.figures.flatMap((one): boolean[] => {
      if (one.kind === "chain") {
        const { chain } = one.applied;
        if (!kinds.includes(chain.kind) || one.readings.length === 0) return [];
        if (parts && !(chain.parts ?? []).some((part) => parts.has(part))) return [];
        return one.assessment.verdict.kind === "outside"
          ? [true]
          : one.assessment.verdict.kind === "inside"
            ? [false]
            : [];
      }
      const { kind, element, part } = one.measurement;
      if (!kinds.includes(kind) || one.verdict === null || one.verdict === "not stated") return [];
      if (parts && element !== this.of.id && (part === undefined || !parts.has(part))) return [];
      return [one.verdict === "outside"];
    });
    return taken.length === 0 ? null : taken.includes(true);
  }
  get ids(): ReadonlySet<string> {
    return new Set(this.of.parts.map(({ id }) => id));
  }
  /** Every part of a kind, whose figures are asked about. */
  ofKind(kind: string): ReadonlySet<string> {
    return new Set(this.applied.scoped.parts.filter((part) => part.kind === kind).map(({ id }) => id));
  }
  /** The line pressure itself, not that of one element. */
  get pressureLow(): boolean | null {
    return this.outside(["pressure"]);
  }
  /**
   * The clearance of this pack as it was found, as its worksheet judges it: every reading brought to the state of the spec, and proven or not by
   * the rule of the house. Null while nothing is proven.
   */
  get clearance(): "tight" | "loose" | "inside" | null {
    const pack = this.applied.packs.find((one) => one.pack.element === this.of.id);
    if (!pack) return null;
    const { verdict } = worksheet(this.job, pack, { rule: this.rule, target: "middle" }).found.assessment;
    if (verdict.kind === "outside") return verdict.side;
    return verdict.kind === "inside" ? "inside" : null;
  }
  /** Found wrong on its parts: counts, ways, parts from elsewhere. */
  get wrong(): FoundWrong | null {
    const { ids } = this;
    const found = this.job.wrongs.find(({ body }) => ids.has(body.of));
    return found ? found.body.what : null;
  }
  /** What was told of the ranges that use it: true when one of these outcomes was. */
  told(outcomes: readonly string[]): boolean | null {
    const ranges = this.applied.present.ranges.filter(({ applied }) => applied.includes(this.of.id));
    const ids = new Set(ranges.flatMap(({ id }) => [`range:${id}`, `manual:${id}`]));
    const answers = this.job.answers.filter(({ body }) => ids.has(body.question));
    return answers.length === 0 ? null : answers.some(({ body }) => outcomes.includes(body.outcome));
  }
  get othersBurnt(): boolean {
    const plates = this.job.findings.filter(
      ({ body }) =>
        this.as(body.wear) === "burnt" && body.sure && body.severity !== "trace" && !this.ids.has(body.part),
    );
    return plates.length > 0;
  }
  /** Whether anything else is beyond use; null while nothing else was looked at. */
  get othersBroken(): boolean | null {
    const { findings, good } = this.job;
    const others = findings.filter(({ body }) => body.sure && !this.ids.has(body.part));
    if (others.some(({ body }) => body.severity === "beyond-use")) return true;
    return others.length > 0 || good.size > 0 ? false : null;
  }
  /** Whether chunks were seen in the debris; null while none was looked at. */
  get chunks(): boolean | null {
    const { debris } = this.job;
    return debris.length === 0
      ? null
      : debris.some(({ body: { what, amount } }) => what === "chunks" && amount !== "none");
  }
  get electrical(): boolean | null {
    const { codes } = this.job;
    return codes.length === 0
      ? null
      : codes.some(({ body }) => body.sort === "electrical-code" && body.related !== "no");
  }
  get use(): boolean | null {
    const driven = this.job.booking?.body.driven ?? "not-told";
    return driven === "not-told" ? null : driven === "hard";
  }
  get earlier(): boolean | null {
    const opened = this.job.booking?.body.opened ?? "not-told";
    return opened === "not-told" ? null : opened === "yes";
  }
  get name(): string {
    return this.of.name;
  }
  /** Weak points of this version that sit at its station or name it. */
  get weak(): { id: string; name: string; found: boolean | null }[] {
    const stations = new Set(this.of.parts.flatMap(({ station }) => station ?? []));
    const element = new RegExp(`\\b${this.of.id}\\b`, "i");
    return (this.applied.scoped.weakPoints ?? [])
      .filter(
        ({ station, complaint, name }) =>
          (station && stations.has(station)) || element.test(complaint) || element.test(name),
      )
      .map(({ id, name }) => {
        const said = this.job.weakPoints.get(id)?.body;
        return {
          id,
          name,
          found: said ? said.answer !== LOOKED_AT : null,
        };
      });
  }
}
