import { chooseJointly, termsWith, type ChooseFirst, type JointPlan, type JointQuestion } from "../select";
import type { Together } from "./together";

/** What one job asks of the shelf. */
export interface JobAsked {
  /** A name of its own. */
  job: string;
  asked: Together;
}
/** What a job gets. */
export type Share = Pick<JointPlan, "seats" | "chains">;
/** What a job gets when several are looked at together, and what it would take if it were alone. */
export interface JobShare {
  job: string;
  together: Share;
  alone: Share;
}

const nameOf = (job: string, id: string): string => `${job} ${id}`;

/**
 * The questions of several jobs as one: each keeps its seats, figures and orders, and what they take from is one shelf. Names get their job's
 * before them; lots are the same for all, as the stock they were asked of is.
 */
export function across(jobs: readonly JobAsked[], first: ChooseFirst = "ready"): JointQuestion {
  const each = jobs.map(({ job, asked: { question } }) => ({ job, question }));
  return {
    seats: each.flatMap(({ job, question }) =>
      question.seats.map((seat) => ({ ...seat, id: nameOf(job, seat.id), job })),
    ),
    chains: each.flatMap(({ job, question }) =>
      question.chains.map((chain) => ({
        ...chain,
        id: nameOf(job, chain.id),
        seats: chain.seats.map(({ seat, sign }) => ({ seat: nameOf(job, seat), sign })),
      })),
    ),
    relations: each.flatMap(({ job, question: { relations = [] } }) =>
      relations.map(({ below, above, by }) => ({ below: nameOf(job, below), above: nameOf(job, above), by })),
    ),
    lots: [...new Map(each.flatMap(({ question }) => question.lots).map((lot) => [lot.id, lot])).values()],
    terms: termsWith(first),
  };
}

/**
 * A plan for several jobs, job by job, beside what each would take alone.
 *
 * @param plan of `across(jobs)`.
 */
export function shares(jobs: readonly JobAsked[], plan: JointPlan): JobShare[] {
  const seats = new Map(plan.seats.map((one) => [one.seat, one]));
  const chains = new Map(plan.chains.map((one) => [one.chain, one]));
  return jobs.map(({ job, asked: { question } }) => ({
    job,
    alone: chooseJointly(question),
    together: {
      seats: question.seats.flatMap(({ id }) => {
        const one = seats.get(nameOf(job, id));
        return one ? [{ ...one, seat: id }] : [];
      }),
      chains: question.chains.flatMap(({ id }) => {
        const one = chains.get(nameOf(job, id));
        return one ? [{ ...one, chain: id }] : [];
      }),
    },
  }));
}
