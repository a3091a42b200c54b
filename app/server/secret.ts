import { matching, suchThat } from "~core/shape";
import { LEADS, type Role } from "~core/fact";

/** A PIN or password as it was typed. */
export const secret = matching(/^.{1,200}$/, "a PIN", "type it");

/** How long a secret must at least be, by what its owner may do. */
export const leastOf = (role: Role): number => (LEADS.includes(role) ? 6 : 4);

/** Digits that anybody would try first: one repeated, or running up or down. */
export function isGuessed(typed: string): boolean {
  const steps = new Set([...typed].slice(1).map((digit, i) => digit.charCodeAt(0) - typed.charCodeAt(i)));
  return steps.size <= 1 && [0, 1, -1].includes([...steps][0] ?? 0);
}

/** What a secret must be, in words. */
export const secretWords = (least: number): string =>
  `At least ${least} digits or letters, not one repeated and not running: neither 1111 nor 2345.`;

/** One that somebody chooses. */
export const newSecret = (least: number) =>
  suchThat(matching(new RegExp(`^.{${least},200}$`), "a PIN", `choose at least ${least} digits or letters`), {
    test: (typed: string) => !isGuessed(typed),
    message: "anybody would guess it",
    remedy: "no digit repeated and none running, as 1111 or 2345",
  });
