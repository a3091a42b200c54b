import { isPackChain } from "./reading-set";
import { basis, type Worksheet } from "./worksheet";
import { basisOf, type Estimate } from "../reading";
import type { Piece } from "../chain";
import { nm } from "../quantity";
import {
  thickness,
  MICROMETER_U,
  type JointQuestion,
  type JointChain,
  type Lot,
  type Offer,
  type Seat,
  type Source,
  type Stock,
} from "../select";

/** What an offer of the question is, to whoever fits it. */
export interface Offered {
  piece: Piece;
  source: Source;
  /** As the candidates of its pack call it. */
  key: string;
}
/** A unit's packs that can be chosen for now, as one question. */
export interface Together {
  question: JointQuestion;
  /** The packs in it, by seat; a seat is called after its chain. */
  sheets: ReadonlyMap<string, Worksheet>;
  /** By the id of the offer; what is in now is `fitted`, of its own seat. */
  offers: ReadonlyMap<string, Offered>;
  /** Packs in scope that still wait for readings, or for what was found in. */
  waiting: Worksheet[];
}

/** How much a size is spared by what is left of it: the last one, the one before. */
const SCARCE: readonly number[] = [0, 2, 1];

/**
 * The packs of a unit that a piece can be chosen for now, together: those whose readings are enough with a known piece in, and that have no choice that stands. A size can be taken as often
 * as it lies on the shelf; what a supplier has can be ordered.
 *
 * @param stock of all their series.
 */
export function together(sheets: readonly Worksheet[], stock: readonly Stock[]): Together {
  const offers = new Map<string, Offered>();
  const lots: Lot[] = [];
  const bySeries = new Map<string, Offer[]>();
  const open = sheets.filter(
    ({ stage }) => stage.at !== "quiet" && stage.at !== "signed" && stage.at !== "done",
  );
  const ready = open.flatMap((sheet) => {
    const from = basis(sheet)?.assessment;
    const measured = from && basisOf(from);
    const { series } = sheet.applied;
    const isOpen = sheet.stage.at === "choose" || sheet.stage.at === "read";
    const fitted = sheet.fitted && series ? thickness(sheet.fitted, series.tolerance) : null;
    return measured && fitted && series && sheet.fitted && isOpen
      ? [{ sheet, measured, series, fitted, piece: sheet.fitted }]
      : [];
  });
  const offersOf = (series: NonNullable<Worksheet["applied"]["series"]>): Offer[] => {
    const known = bySeries.get(series.id);
    if (known) return known;
    const made = series.sizes.flatMap(({ part, mark, size }): Offer[] => {
      const piece: Piece = { part, mark, size };
      const marked = thickness(piece, series.tolerance);
      const adds = { adds: size, variance: Math.round((marked?.uncertainty ?? 0) ** 2) };
      const list: Offer[] = [];
      for (const { piece: odd, onHand, price, days } of stock.filter((one) => one.part === part)) {
        if (odd && onHand > 0) {
          lots.push({ id: odd.id, count: onHand });
          offers.set(odd.id, {
            piece: { ...piece, measured: odd.measured },
            source: { kind: "odd piece", pieceId: odd.id },
            key: odd.id,
          });
          list.push({ id: odd.id, lot: odd.id, adds: odd.measured, variance: Math.round(MICROMETER_U ** 2) });
        }
        if (odd) continue;
        if (onHand > 0) {
          lots.push({ id: part, count: onHand });
          offers.set(part, { piece, source: { kind: "shelf", onHand }, key: part });
          list.push({ id: part, lot: part, ...adds, scarce: SCARCE[onHand] ?? 0 });
        }
        if (days !== undefined) {
          const id = `${part} ordered`;
          offers.set(id, { piece, source: { kind: "order", price, days }, key: part });
          list.push({ id, ...adds, days, money: price ?? 0 });
        }
      }
      return list;
    });
    bySeries.set(series.id, made);
    return made;
  };
  const seats = ready.map(({ sheet, series, fitted, piece }): Seat => {
    const all = offersOf(series);
    // Another of the size that is in, both by their marks, would predict the same: no choice.
    const same = piece.measured === undefined ? [piece.part, `${piece.part} ordered`] : [];
    return {
      id: sheet.applied.chain.id,
      fitted: { id: "fitted", adds: fitted.value, variance: Math.round(fitted.uncertainty ** 2) },
      offers: all,
      barred: all.flatMap(({ id }) => (same.includes(id) ? [id] : [])),
    };
  });
  const chains = ready.map(({ sheet, measured, fitted }) => chainOf(sheet, measured, fitted.value));
  return {
    question: { seats, chains, lots },
    sheets: new Map(ready.map(({ sheet }) => [sheet.applied.chain.id, sheet])),
    offers,
    waiting: open.filter((sheet) => isPackChain(sheet.applied) && !ready.some((one) => one.sheet === sheet)),
  };
}

/** A pack's clearance as its ring moves it: a thicker one closes it. */
function chainOf({ applied, target }: Worksheet, measured: Estimate, fitted: number): JointChain {
  const { chain, spec } = applied;
  return {
    id: chain.id,
    seats: [{ seat: chain.id, sign: -1 }],
    rest: nm(measured.mean + fitted),
    variance: Math.round(measured.u ** 2),
    scatter: measured.components.reduce((sum, { u, dof }) => sum + (dof === Infinity ? 0 : u ** 4 / dof), 0),
    min: spec.min,
    max: spec.max,
    ...(target.kind === "at" ? { target: target.length } : {}),
  };
}
