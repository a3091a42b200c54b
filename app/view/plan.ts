import { planOf } from "~core/steps";
import { workedOut } from "./worked-out";

/** How the unit comes apart, and where what came off lies. */
export const planIn = workedOut(({ job, applied }) => planOf(job, applied));
