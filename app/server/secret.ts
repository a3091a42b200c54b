import { matching } from "~core/shape";

/** A PIN or password as it was typed. */
export const secret = matching(/^.{1,200}$/, "a PIN", "type it");
/** One that somebody chooses: longer for whoever may do everything. */
export const newSecret = (least: number) =>
  matching(new RegExp(`^.{${least},200}$`), "a PIN", `choose at least ${least} digits or letters`);
