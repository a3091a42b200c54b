import { ends } from "../reading";
import type { Nm } from "../quantity";
import { nm } from "../quantity";
import type { JointPlan } from "../select";
import type { OpenSeat, Together } from "./together";
import type { Worksheet } from "./worksheet";

/** Why nothing brings a figure inside, for one of its seats: what would have to be in it, and what stands against that. */
export interface WayOut {
  seat: OpenSeat;
  /** What would have to be in it, everything else being as it is proposed. */
  from: Nm;
  to: Nm;
  /**
   * `series`: no size of it is that thick or thin. `nobody`: there is such a size, and neither the shelf nor a supplier has it. `taken`: it lies
   * on the shelf, and is needed or reserved elsewhere. `order`: one that would do breaks an order between results.
   */
  against: "series" | "nobody" | "taken" | "order";
  /** Sizes of the series that would do, by their marks. */
  marks: string[];
}

/** A figure that is outside by the best plan there is. */
export interface Outside {
  sheet: Worksheet;
  mean: Nm;
  side: "loose" | "tight";
  ways: WayOut[];
}

/** Figures that nothing on the shelf or to be ordered brings inside, and for each of their seats what would. */
export function outsides(asked: Together, plan: JointPlan): Outside[] {
  return plan.chains.flatMap(({ chain, mean, isOutside }): Outside[] => {
    const known = asked.sheets.get(chain);
    if (!isOutside || !known || mean === null) return [];
    const { sheet } = known;
    const { min, max } = ends(sheet.applied.spec);
    const ways = sheet.seats.flatMap(({ link }): WayOut[] => {
      const seat = asked.seats.get(link.id);
      const put = plan.seats.find((one) => one.seat === link.id)?.offer;
      if (!seat || !put) return [];
      // result = rest + sign·size: what is in moves it to the middle of what may be.
      const [a, b] = [min, max].map((limit) => put.adds + link.sign * (limit - mean));
      const [from, to] = [nm(Math.min(a ?? 0, b ?? 0)), nm(Math.max(a ?? 0, b ?? 0))];
      const fits = link.sizes.filter(({ size }) => size >= from && size <= to);
      const offered = new Set(
        (asked.question.seats.find(({ id }) => id === link.id)?.offers ?? []).map(
          ({ id }) => asked.offers.get(id)?.piece.mark,
        ),
      );
      const against =
        fits.length === 0
          ? "series"
          : !fits.some(({ mark }) => offered.has(mark))
            ? "nobody"
            : plan.broken.length > 0
              ? "order"
              : "taken";
      return [{ seat, from, to, against, marks: fits.map(({ mark }) => mark) }];
    });
    return [{ sheet, mean, side: mean > max ? "loose" : "tight", ways }];
  });
}
