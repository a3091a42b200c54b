import { TZDate } from "@date-fns/tz";
import { lightFormat } from "date-fns";
import { useInside } from "~/door/inside";

/** How moments are written in the shop: by its own clock, wherever the server or the browser stands. */
export interface When {
  /** `2026-05-04` */
  day: (at: string) => string;
  /** `2026-05-04 08:15` */
  moment: (at: string) => string;
  /** `05-04 08:15`, where the year is plain. */
  short: (at: string) => string;
  /** `08:15` */
  clock: (at: string) => string;
}

/** @param zone the shop's, by its name: `Europe/Oslo`. */
export function whenIn(zone: string): When {
  const as = (pattern: string) => (at: string) => lightFormat(new TZDate(at, zone), pattern);
  return {
    day: as("yyyy-MM-dd"),
    moment: as("yyyy-MM-dd HH:mm"),
    short: as("MM-dd HH:mm"),
    clock: as("HH:mm"),
  };
}

/** The same by the clock of the shop whose page this is. */
export const useWhen = (): When => whenIn(useInside().house.timeZone);
