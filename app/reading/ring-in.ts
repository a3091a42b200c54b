import type { Worksheet } from "~core/measure";
import type { Nm } from "~core/quantity";
import { thickness } from "~core/select";

/** The thickness of the ring that is in now; null while nobody has said which it is. */
export function ringIn({ fitted, applied: { series } }: Worksheet): Nm | null {
  if (!fitted || !series) return null;
  return thickness(fitted, series.tolerance)?.value ?? null;
}
