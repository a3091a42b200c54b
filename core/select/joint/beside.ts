import { chooseJointly, type JointPlan } from "./joint";
import { TERMS, type JointQuestion, type Term } from "./question";

/** What a plan can be made for, beside the shop's own order of terms. */
export type Aim = "nearest" | "at hand" | "sparing";

/** Where an aim wants a term: right after the chance of being outside, which nobody trades. */
const AFTER_CHANCE: Readonly<Record<Exclude<Aim, "at hand">, Term>> = {
  nearest: "target",
  sparing: "scarce",
};

/**
 * Three proposals to lay side by side: nearest the targets; with what is at hand, nothing to wait for; sparing what is scarce.
 *
 * @throws as `chooseJointly`.
 */
export const proposals = (question: JointQuestion): Record<Aim, JointPlan> => ({
  nearest: proposal(question, "nearest"),
  "at hand": proposal(question, "at hand"),
  sparing: proposal(question, "sparing"),
});

const proposal = (question: JointQuestion, aim: Aim): JointPlan => chooseJointly(aimed(question, aim));

/** The same question asked for an aim: what its plan is, and what would be next best for that aim. */
export function aimed(question: JointQuestion, aim: Aim): JointQuestion {
  if (aim === "at hand") return atHand(question);
  const { terms = TERMS } = question;
  const term = AFTER_CHANCE[aim];
  const others = terms.filter((one) => one !== term);
  const at = others.indexOf("chance") + 1;
  return { ...question, terms: [...others.slice(0, at), term, ...others.slice(at)] };
}

/** The same with nothing that has to come first. Seats that shared their offers still do. */
function atHand(question: JointQuestion): JointQuestion {
  const known = new Map<unknown, JointQuestion["seats"][number]["offers"]>();
  const seats = question.seats.map((seat) => {
    const offers = known.get(seat.offers) ?? seat.offers.filter((offer) => (offer.days ?? 0) === 0);
    known.set(seat.offers, offers);
    const names = new Set([...offers, ...(seat.fitted ? [seat.fitted] : [])].map(({ id }) => id));
    const { pinned, barred = [], ...rest } = seat;
    return {
      ...rest,
      offers,
      barred: barred.filter((id) => names.has(id)),
      // What a person has decided on is waited for.
      ...(pinned === undefined
        ? {}
        : names.has(pinned)
          ? { pinned }
          : { offers: seat.offers, pinned, barred }),
    };
  });
  return { ...question, seats };
}

/** What happens where a seat does not get what it should. */
export interface Instead {
  seat: string;
  /** The whole plan without that piece in that seat. */
  plan: JointPlan;
  /** Other seats whose piece changes with it. */
  elsewhere: string[];
}

/**
 * For each seat the next best, and what that costs elsewhere: the best plan in which it has anything but its own piece.
 *
 * @param plan of the same question.
 */
export function insteads(question: JointQuestion, plan: JointPlan): Instead[] {
  const chosen = new Map(plan.seats.map(({ seat, offer }) => [seat, offer]));
  return question.seats.flatMap(({ id, pinned }) => {
    const own = chosen.get(id);
    if (!own || pinned !== undefined) return [];
    const seats = question.seats.map((seat) =>
      seat.id === id ? { ...seat, barred: [...(seat.barred ?? []), own.id] } : seat,
    );
    const other = chooseJointly({ ...question, seats });
    const elsewhere = other.seats.flatMap(({ seat, offer }) =>
      seat !== id && offer?.id !== chosen.get(seat)?.id ? [seat] : [],
    );
    return [{ seat: id, plan: other, elsewhere }];
  });
}
