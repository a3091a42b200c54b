import type { Condition } from "../fact";
import { causesOf, isMechanical, type Fault, type Unit } from "./cause";
import { Mechanics } from "./mechanics";
import { conditionChance, prior, type Distribution } from "./model";
import { questionsOf, type Question } from "./question";

/** One answer: what a customer says, what was seen or read off. */
export interface Told {
  question: string;
  outcome: string;
  /** When it shows, if somebody says when. */
  conditions?: readonly Condition[];
}

/** One or two causes at a time, and how likely they are together. */
export interface CauseSet {
  causes: readonly Fault[];
  /** Before anything is told; not normed. */
  weight: number;
}

/** One cause with what speaks for and against it. */
export interface Suspect {
  cause: Fault;
  /** Chance that it is at fault, alone or with another. */
  chance: number;
  /** Of each answer told: how much likelier it is if this cause is at fault than if it is not. */
  factors: readonly { told: Told; factor: number }[];
}

/** What could be asked next, and how much it would tell. */
export interface NextCheck {
  question: Question;
  /** Expected gain of information, in bits. */
  bits: number;
  bitsPerMinute: number;
  /** What each answer would make of it, likeliest first. */
  would: readonly { outcome: string; chance: number; first: Fault; firstChance: number }[];
}

/** Suspects, likeliest first, and the questions that would tell them apart best. */
export interface Diagnosis {
  /** Likeliest first; all of them, so that no runner-up is hidden. */
  suspects: readonly Suspect[];
  /** The likeliest single causes and pairs. */
  sets: readonly { causes: readonly Fault[]; chance: number }[];
  /** What would tell most for its minutes, best first. */
  next: readonly NextCheck[];
  /** Answers that the unit has no question for: another version, an older book. */
  unread: readonly Told[];
}

/**
 * Which causes explain what is told of a unit: exact inference over all single causes and all pairs.
 *
 * The chance of an answer under a set of causes is that of a noisy-or: an answer is normal when no cause of the set changes it; otherwise it
 * is the answer of one of those that do, each taken as often as it changes it. Faults of elements are not independent in a range – one can
 * undo or make the other's effect – so what they do there comes from the gear train with all of them in.
 *
 * Source: Pearl, Probabilistic Reasoning in Intelligent Systems, 1988, ch. 4 (noisy-or); the tables are in `model`.
 */
export class Diagnostician {
  readonly causes: readonly Fault[];
  readonly questions: readonly Question[];
  readonly sets: readonly CauseSet[];
  private readonly byId: ReadonlyMap<string, Question>;
  private readonly tables = new Map<string, readonly Distribution[]>();
  /** The places of a set's causes among all causes. */
  private readonly members: readonly (readonly number[])[];

  /** @param unit what holds for this very unit; see `resolve`. */
  constructor(readonly unit: Unit) {
    const mechanics = new Mechanics(unit);
    this.causes = causesOf(unit, mechanics);
    this.questions = questionsOf(unit, mechanics);
    this.byId = new Map(this.questions.map((question) => [question.id, question]));
    this.sets = setsOf(this.causes);
    const place = new Map(this.causes.map((cause, i) => [cause, i]));
    this.members = this.sets.map(({ causes }) => causes.map((cause) => place.get(cause) ?? 0));
  }

  question = (id: string): Question | undefined => this.byId.get(id);

  /** @param asked how many of the best next checks are worked out; none when 0. */
  diagnose(told: readonly Told[], asked = 6): Diagnosis {
    const known = told.filter(({ question, outcome }) => this.byId.get(question)?.outcomes.includes(outcome));
    const likelihoods = known.map((one) => this.likelihoods(one));
    const chances = this.after(likelihoods);
    const marginals = this.marginals(chances);
    const factors = likelihoods.map((each) => this.factors(each));
    const answered = new Set(known.map(({ question }) => question));
    const open = this.questions.filter(({ id }) => !answered.has(id));
    return {
      suspects: this.causes
        .map((cause, i) => ({
          cause,
          chance: marginals[i] ?? 0,
          factors: known.map((one, k) => ({ told: one, factor: factors[k]?.[i] ?? 1 })),
        }))
        .sort((a, b) => b.chance - a.chance),
      sets: this.sets
        .map(({ causes }, i) => ({ causes, chance: chances[i] ?? 0 }))
        .sort((a, b) => b.chance - a.chance)
        .slice(0, 12),
      next:
        asked === 0
          ? []
          : open
              .map((question) => this.weigh(question, chances))
              .sort((a, b) => b.bitsPerMinute - a.bitsPerMinute)
              .slice(0, asked)
              .map((check) => ({ ...check, would: this.would(check.question, chances) })),
      unread: told.filter((one) => !known.includes(one)),
    };
  }

  /** The chance of every set given what is told; adds up to one. */
  posterior = (told: readonly Told[]): number[] => this.after(told.map((one) => this.likelihoods(one)));

  private after(likelihoods: readonly (readonly number[])[]): number[] {
    let chances = normed(this.sets.map(({ weight }) => weight));
    // Normed after each answer, so that many answers do not underflow.
    for (const each of likelihoods) chances = normed(chances.map((chance, i) => chance * (each[i] ?? 1)));
    return chances;
  }

  /** The chance of every cause, alone or with another, in the order of the causes. */
  private marginals(chances: readonly number[]): number[] {
    const sums = this.causes.map(() => 0);
    this.members.forEach((places, i) => {
      for (const place of places) sums[place] = (sums[place] ?? 0) + (chances[i] ?? 0);
    });
    return sums;
  }

  private likelihoods = (told: Told): number[] => this.sets.map((_, i) => this.likelihood(told, i));

  /** How likely an answer is under the set of this index. */
  private likelihood({ question: id, outcome, conditions = [] }: Told, i: number): number {
    const [question, set] = [this.byId.get(id), this.sets[i]];
    if (!question || !set) return 1;
    if (conditions.length === 0 || outcome === question.outcomes[0])
      return this.table(question)[i]?.get(outcome) ?? 1;
    return together(
      partsOf(question, set.causes).map(({ distribution, causes }) => ({
        normal: distribution.get(question.outcomes[0] ?? "") ?? 0,
        chance:
          (distribution.get(outcome) ?? 0) *
          mean(causes.map((cause) => conditions.reduce((p, when) => p * conditionChance(cause, when), 1))),
      })),
    );
  }

  /** The distribution of a question's answers under every set. */
  private table(question: Question): readonly Distribution[] {
    const known = this.tables.get(question.id);
    if (known) return known;
    const table = this.sets.map(({ causes }) => answersOf(question, causes));
    this.tables.set(question.id, table);
    return table;
  }

  /** Bayes factors of an answer for every cause: its chance with the cause at fault over its chance without. */
  private factors(likelihoods: readonly number[]): number[] {
    const weights = this.sets.map(({ weight }) => weight);
    const joint = weights.map((weight, i) => weight * (likelihoods[i] ?? 1));
    const [all, allJoint] = [total(weights), total(joint)];
    const [having, havingJoint] = [this.marginals(weights), this.marginals(joint)];
    return this.causes.map((_, i) => {
      const [weight, chance] = [having[i] ?? 0, havingJoint[i] ?? 0];
      return chance / weight / ((allJoint - chance) / (all - weight));
    });
  }

  /** The mutual information of a question's answer and the set at fault. */
  private weigh(question: Question, chances: readonly number[]): Omit<NextCheck, "would"> {
    const table = this.table(question);
    let bits = entropy(chances);
    for (const outcome of question.outcomes) {
      let [sum, logs] = [0, 0];
      chances.forEach((chance, i) => {
        const joint = chance * (table[i]?.get(outcome) ?? 0);
        sum += joint;
        if (joint > 0) logs += joint * Math.log2(joint);
      });
      // Σ p·H of the normed joint, without norming it.
      bits -= sum * Math.log2(sum) - logs;
    }
    const gain = Math.max(0, bits);
    return { question, bits: gain, bitsPerMinute: gain / question.minutes };
  }

  private would(question: Question, chances: readonly number[]): NextCheck["would"] {
    const table = this.table(question);
    return question.outcomes
      .map((outcome) => {
        const joint = chances.map((chance, i) => chance * (table[i]?.get(outcome) ?? 0));
        const chance = total(joint);
        const [first, firstChance] = this.first(joint.map((one) => one / chance));
        return { outcome, chance, first, firstChance };
      })
      .sort((a, b) => b.chance - a.chance);
  }

  private first(chances: readonly number[]): [Fault, number] {
    const marginals = this.marginals(chances);
    const best = marginals.reduce((at, chance, i) => (chance > (marginals[at] ?? 0) ? i : at), 0);
    const cause = this.causes[best];
    if (!cause) throw new RangeError("a unit without causes");
    return [cause, marginals[best] ?? 0];
  }
}

const total = (values: readonly number[]): number => values.reduce((sum, one) => sum + one, 0);
const normed = (weights: readonly number[]): number[] => {
  const sum = total(weights);
  return weights.map((weight) => weight / sum);
};
const mean = (values: readonly number[]): number => total(values) / values.length;
const entropy = (chances: readonly number[]): number =>
  chances.reduce((sum, p) => (p > 0 ? sum - p * Math.log2(p) : sum), 0);

/** Every cause alone and every pair, but not an element with itself: it is not sound and burnt at once. */
export function setsOf(causes: readonly Fault[]): CauseSet[] {
  const odds = (cause: Fault): number => prior(cause) / (1 - prior(cause));
  const sets: CauseSet[] = causes.map((cause) => ({ causes: [cause], weight: odds(cause) }));
  causes.forEach((a, i) => {
    for (const b of causes.slice(i + 1)) {
      if (a.kind === "element" && b.kind === "element" && a.element.id === b.element.id) continue;
      sets.push({ causes: [a, b], weight: odds(a) * odds(b) });
    }
  });
  return sets;
}

/** What each part of a set says by itself: its elements together where the train decides, every other cause alone. */
export function partsOf(
  question: Question,
  causes: readonly Fault[],
): { distribution: Distribution; causes: readonly Fault[] }[] {
  const { mechanical } = question;
  const alone = (cause: Fault) => ({ distribution: question.alone(cause), causes: [cause] });
  if (!mechanical) return causes.map(alone);
  const elements = causes.filter(isMechanical);
  const others = causes.filter((cause) => !isMechanical(cause)).map(alone);
  return elements.length === 0
    ? others
    : [{ distribution: mechanical(elements), causes: elements }, ...others];
}

/** Chance of an answer that is not the normal one, from parts with their chance of it and of the normal one. */
function together(parts: readonly { normal: number; chance: number }[]): number {
  const fine = parts.reduce((product, { normal }) => product * normal, 1);
  const odd = parts.reduce((sum, { normal }) => sum + (1 - normal), 0);
  const chance = parts.reduce((sum, part) => sum + part.chance, 0);
  return ((1 - fine) * chance) / odd;
}

function answersOf(question: Question, causes: readonly Fault[]): Distribution {
  const parts = partsOf(question, causes).map(({ distribution }) => distribution);
  const [only] = parts;
  if (only && parts.length === 1) return only;
  const normal = question.outcomes[0] ?? "";
  let [fine, odd] = [1, 0];
  for (const part of parts) {
    const chance = part.get(normal) ?? 0;
    fine *= chance;
    odd += 1 - chance;
  }
  const answers = new Map<string, number>();
  for (const outcome of question.outcomes) {
    let sum = 0;
    for (const part of parts) sum += part.get(outcome) ?? 0;
    answers.set(outcome, outcome === normal ? fine : ((1 - fine) * sum) / odd);
  }
  return answers;
}
