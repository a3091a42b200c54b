import { format, parseISO } from "date-fns";

/** A day as one says it at the counter: `Thu 3 Dec`. */
export const dayText = (iso: string): string => format(parseISO(iso), "EEE d MMM");
