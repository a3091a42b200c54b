import type { AirCheck } from "../book";
import type { AirResult, BodyOf } from "../fact";
import { baseOf, compare, divide, isZero, parseMeasure, type Measure } from "../quantity";

/**
 * What an air check comes to: as heard, and where pressure was read over seconds, by how fast it fell. What applied and let go and lost more than the book
 * allows leaks.
 *
 * @param said with its figures as written; one that cannot be read decides nothing.
 */
export function airResult(
  { lost: allowed }: Pick<AirCheck, "lost">,
  { result, lost, over }: Pick<BodyOf<"air">, "result" | "lost" | "over">,
): AirResult {
  if (!allowed || lost === undefined || over === undefined || (result !== "holds" && result !== "leaks"))
    return result;
  const fell = parseMeasure(lost, "pressure");
  const seconds = parseMeasure(over, "time");
  if (!fell.ok || !seconds.ok || isZero(baseOf(seconds.measure))) return result;
  return compare(rate(fell.measure, seconds.measure), rate(allowed.pressure, allowed.over)) > 0
    ? "leaks"
    : "holds";
}

const rate = (pressure: Measure<"pressure">, time: Measure<"time">) => divide(baseOf(pressure), baseOf(time));
