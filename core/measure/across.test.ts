import { describe, expect, it } from "@jest/globals";
import { chooseJointly, TERMS, type JointPlan, type JointQuestion } from "../select";
import { contestedQuestion, oddQuestion } from "../testing/choices";
import { across, shares, type JobAsked } from "./across";
import type { Together } from "./together";

const asking = (job: string, question: JointQuestion): JobAsked => ({ job, asked: { question } as Together });
/** Two jobs that ask of one shelf. */
const two = (seed: number, plenty: number): JobAsked[] => {
  const [one, other] = [oddQuestion(2 * seed + 1, 2), contestedQuestion(seed)];
  const held = new Map([...one.lots, ...other.lots].map(({ id, count }) => [id, count + plenty]));
  const lotsOf = ({ lots }: JointQuestion) => lots.map(({ id }) => ({ id, count: held.get(id) ?? 0 }));
  return [one, other].map((question, i) => {
    return asking(`10${i}`, { ...question, terms: undefined, lots: lotsOf(question) });
  });
};
const taken = ({ seats }: Pick<JointPlan, "seats">): string[] =>
  seats.flatMap(({ offer }) => (offer?.lot === undefined ? [] : [offer.lot]));

describe("several jobs at one shelf", () => {
  const seeds = Array.from({ length: 60 }, (_, i) => i);

  it("get what each would take alone where there is enough for all", () => {
    for (const seed of seeds) {
      const jobs = two(seed, 40);
      const alone = jobs.map(({ asked: { question } }) => chooseJointly(question));
      const plan = chooseJointly(across(jobs));
      const sum = TERMS.map((term) => alone.reduce((all, { values }) => all + values[term], 0));
      expect([seed, ...TERMS.map((term) => plan.values[term])]).toEqual([seed, ...sum]);
    }
  });

  it("take no more than lies there, fill every seat of theirs, and are told what they would take alone", () => {
    let differing = 0;
    for (const seed of seeds) {
      const jobs = two(seed, 0);
      const question = across(jobs);
      const told = shares(jobs, chooseJointly(question));
      const all = told.flatMap(({ together }) => taken(together));
      for (const { id, count } of question.lots)
        expect(all.filter((lot) => lot === id).length).toBeLessThanOrEqual(count);
      for (const [i, { job, together, alone }] of told.entries()) {
        const own = jobs[i]?.asked.question;
        expect([job, together.seats.map(({ seat }) => seat)]).toEqual([
          `10${i}`,
          own?.seats.map(({ id }) => id),
        ]);
        expect(together.chains.map(({ chain }) => chain)).toEqual(own?.chains.map(({ id }) => id));
        if (taken(together).join() !== taken(alone).join()) differing++;
      }
    }
    // Else nothing was shared out.
    expect(differing).toBeGreaterThan(5);
  });
});
