import { capital, listed } from "~core/book";
import { moneyText } from "~core/quantity";
import { TERMS, type JointPlan, type Term } from "~core/select";

const WHAT: Record<Term, string> = {
  outside: "figures outside",
  order: "their order",
  chance: "the chance of being outside",
  ready: "when all is ready",
  money: "what it costs",
  changed: "how many are changed",
  scarce: "sparing scarce sizes",
  target: "being near the target",
};

/** By how much at most, where that can be said in units somebody knows. */
function byHowMuch(term: Term, gap: number): string {
  switch (term) {
    case "ready":
      return ` by ${gap} ${gap === 1 ? "day" : "days"} at most`;
    case "money":
      return ` by ${moneyText(gap)} at most`;
    case "outside":
    case "order":
    case "changed":
      return ` by ${gap} at most`;
    default:
      return "";
  }
}

/**
 * Whether a plan is proved, and if it is not, how far it is and what could still be better.
 *
 * @param terms in the order they count.
 */
export function proofText(
  { proven, values, bound }: Pick<JointPlan, "proven" | "values" | "bound">,
  terms: readonly Term[] = TERMS,
): string {
  if (proven) return "Proved: nothing on this shelf is better.";
  const stopped = "Not proved: the search was stopped.";
  const at = terms.findIndex((term, i) => values[term] !== bound[i]);
  const open = terms[at];
  if (open === undefined) return stopped;
  const sure = terms.slice(0, at).map((term) => WHAT[term]);
  const could = `${WHAT[open]} could be better${byHowMuch(open, values[open] - (bound[at] ?? 0))}`;
  return sure.length === 0
    ? `${stopped} ${capital(could)}.`
    : `${stopped} Nothing is better in ${listed(sure)}; ${could}.`;
}
