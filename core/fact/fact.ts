import type { Read } from "../shape";
import type { KINDS } from "./kinds";

type Kinds = typeof KINDS;
/** The name of a kind of fact, as stored. */
export type FactKind = keyof Kinds;

/** What a fact of a kind says. */
export type BodyOf<K extends FactKind> = K extends FactKind ? { kind: K } & Read<Kinds[K]["shape"]> : never;
/** What a fact can say: one of the kinds declared in `kinds/`. None is ever changed or taken away; `upcast` reads what earlier ones said. */
export type FactBody = BodyOf<FactKind>;

/** Somebody said something about a job, once and for all. The id is made where it was said, so sending twice stores once. */
export interface Fact<B extends FactBody = FactBody> {
  id: string;
  /** When it was said, by the clock of whoever said it; ISO 8601. */
  at: string;
  by: string;
  /** The fact this one corrects; the old one stays visible. */
  replaces?: string;
  /** The last fact of the job that its speaker had seen: its place in the order, whenever it arrives. */
  after?: string;
  body: B;
}

/** Facts of one kind, with their bodies narrowed. */
export type FactOf<K extends FactKind> = Fact<BodyOf<K>>;

/** Whether a fact is of a kind; narrows its type. */
export const isKind = <K extends FactKind>(fact: Fact, kind: K): fact is FactOf<K> => fact.body.kind === kind;
