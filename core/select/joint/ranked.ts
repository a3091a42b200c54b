import { chooseJointly, type JointPlan } from "./joint";
import { TERMS, type JointQuestion, type Offer } from "./question";

/** One piece for a seat, and the best that can be done for all the others then. */
export interface Ranked {
  offer: Offer;
  /** Whether it is what is in now. */
  kept: boolean;
  plan: JointPlan;
}

/**
 * Everything a seat could have, best first by the question's own terms: each with the plan that is best once it is in. The first is what the joint
 * choice proposes, or is as good.
 *
 * @throws as `chooseJointly`, and for a seat that is not in the question.
 */
export function ranked(question: JointQuestion, seat: string): Ranked[] {
  const own = question.seats.find(({ id }) => id === seat);
  if (!own) throw new RangeError(`no seat "${seat}"`);
  const barred = new Set(own.barred);
  const offers = [...(own.fitted ? [own.fitted] : []), ...own.offers].filter(({ id }) => !barred.has(id));
  const pinned = (offer: Offer): JointQuestion => ({
    ...question,
    seats: question.seats.map((one) => (one === own ? { ...one, pinned: offer.id } : one)),
  });
  const { terms = TERMS } = question;
  return (
    offers
      .map((offer) => ({ offer, kept: offer === own.fitted, plan: chooseJointly(pinned(offer)) }))
      // What cannot be had leaves its seat open.
      .filter(({ offer, plan }) => plan.seats.find((one) => one.seat === seat)?.offer?.id === offer.id)
      .sort((a, b) => {
        for (const term of terms) {
          const by = a.plan.values[term] - b.plan.values[term];
          if (by !== 0) return by;
        }
        return 0;
      })
  );
}
