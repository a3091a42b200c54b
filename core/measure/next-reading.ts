import { ends } from "../reading";
import { MICROMETER_U, unlikeliness, type JointPlan } from "../select";
import type { Together } from "./together";

/** One more thing to measure, and how much surer that would make the choice. */
export interface NextReading {
  what: "read again" | "piece out" | "piece in";
  /** The figure to read, or the seat whose piece is put under a micrometer. */
  chain: string;
  seat: string | null;
  /** By how much −ln of the chance that all is inside gets smaller, in hundredths. */
  gain: number;
}

/** Less than two percent is no reason to measure again. */
const WORTH = 2;

/**
 * The one measurement that would most reduce the chance of a wrong choice: another reading of a figure, which its scatter shrinks with as 1/√n, or a
 * micrometer on a piece that is known by its mark alone. The means are taken to stay as they are.
 *
 * @returns null where none is worth it.
 */
export function nextReading(asked: Together, plan: JointPlan): NextReading | null {
  const ways = plan.chains.flatMap(({ chain, mean, variance }): NextReading[] => {
    const known = asked.sheets.get(chain);
    if (!known || mean === null) return [];
    const { spec } = known.sheet.applied;
    const { components, count } = known.now;
    const scatterOf = (n: number): number =>
      components.reduce(
        (sum, { name, u, dof }) =>
          dof === Infinity
            ? sum
            : sum + (name === "scatter" ? ((u * u * count) / n) ** 2 / (dof + n - count) : u ** 4 / dof),
        0,
      );
    const sure = (v: number, n: number): number =>
      unlikeliness(mean, Math.max(0, v), scatterOf(n), ends(spec));
    const now = sure(variance, count);
    const scatter = components.find(({ name }) => name === "scatter")?.u ?? 0;
    const again: NextReading = {
      what: "read again",
      chain,
      seat: null,
      gain: now - sure(variance - scatter ** 2 / (count + 1), count + 1),
    };
    const pieces = known.sheet.seats.flatMap(({ link, fitted }): NextReading[] => {
      const put = plan.seats.find((one) => one.seat === link.id);
      if (!put?.offer || put.kept || !fitted) return [];
      const marked = (link.tolerance / Math.sqrt(3)) ** 2;
      const gain = now - sure(variance - marked + MICROMETER_U ** 2, count);
      const offered = asked.offers.get(put.offer.id);
      return [
        ...(fitted.measured === undefined
          ? [{ what: "piece out" as const, chain, seat: link.id, gain }]
          : []),
        ...(offered?.source.kind === "shelf"
          ? [{ what: "piece in" as const, chain, seat: link.id, gain }]
          : []),
      ];
    });
    return [again, ...pieces];
  });
  const [best] = ways.sort((a, b) => b.gain - a.gain);
  return best && best.gain >= WORTH ? best : null;
}
