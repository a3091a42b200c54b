import { capital } from "~core/book";
import { titleOf, type OpenSeat } from "~core/measure";

/** What a place is called here: a seat of the book by its name, a pack’s or a figure’s own by that. */
export const seatName = ({ link, sheets }: OpenSeat): string =>
  link.seat ? capital(link.name) : sheets[0] ? titleOf(sheets[0]) : link.name;
