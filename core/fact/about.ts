import type { FactBody } from "./fact";
import { KINDS } from "./kinds";
import type { Kind } from "./kind";

/** A kind's declaration, whatever its fields. */
export const kindOf = (name: FactBody["kind"]): Kind => KINDS[name] as unknown as Kind;

/** What a fact is about: the keys of which the last word holds. Empty where it stands for itself. */
export function aboutOf(body: FactBody): readonly string[] {
  const { about } = kindOf(body.kind);
  if (!about) return [];
  const keys = about(body);
  return typeof keys === "string" ? [keys] : keys;
}
