import { moneyText } from "~core/quantity";
import type { Source } from "~core/select";

/** A chance as one says it. */
export const percent = (chance: number): string =>
  chance > 0.995 ? "> 99 %" : chance < 0.005 ? "< 1 %" : `${Math.round(chance * 100)} %`;

/** Where a piece is to be had. */
export function sourceText(source: Source): string {
  switch (source.kind) {
    case "fitted":
      return "fitted now";
    case "shelf":
      return source.onHand === 1 ? "last on shelf" : `${source.onHand} on shelf`;
    case "made":
      return "set here";
    case "odd piece":
      return "odd piece, shelf";
    case "order": {
      const price = source.price === undefined ? "" : `, ${moneyText(source.price)}`;
      return `to order${source.days === undefined ? "" : `, ${source.days} d`}${price}`;
    }
  }
}
