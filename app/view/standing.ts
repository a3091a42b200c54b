import { houseOf } from "~core/measure";
import { standingOf } from "~core/stage";
import { workedOut } from "./worked-out";

/** How the stages of a job stand and what is next. */
export const standingIn = workedOut(({ job, applied, house }) =>
  standingOf(job, applied, houseOf(job, house)),
);
