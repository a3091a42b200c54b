import { add, divide, isZero, multiply, negate, ONE, sign, ZERO, type Rational } from "../quantity";

/** One linear equation over member speeds: Σ coefficient·speed = 0. */
export type Equation = ReadonlyMap<string, Rational>;

/** Σ over a row of pivots: the member's speed as a combination of the free ones. */
type Combination = Map<string, Rational>;

/**
 * A set of linear homogeneous equations over the rationals, kept solved: each pivot member is written in those that are free. Adding an
 * equation is one step of Gauss's elimination, so a train can be tried with one element more without solving it again.
 */
export class LinearSystem {
  private constructor(
    private readonly members: readonly string[],
    private readonly pivots: ReadonlyMap<string, Combination>,
  ) {}

  static of(members: readonly string[], equations: readonly Equation[]): LinearSystem {
    return equations.reduce(
      (system, equation) => system.with(equation),
      new LinearSystem(members, new Map()),
    );
  }

  /** The same system with one equation more; one that says nothing new gives the system itself. */
  with(equation: Equation): LinearSystem {
    const rest = this.reduce(equation);
    const pivot = [...rest.keys()][0];
    if (pivot === undefined) return this;
    const scale = rest.get(pivot) ?? ONE;
    rest.delete(pivot);
    const solved: Combination = new Map([...rest].map(([member, c]) => [member, negate(divide(c, scale))]));
    const pivots = new Map<string, Combination>([[pivot, solved]]);
    for (const [other, row] of this.pivots) pivots.set(other, substitute(row, pivot, solved));
    return new LinearSystem(this.members, pivots);
  }

  /** How many motions are free. */
  get freedom(): number {
    return this.members.length - this.pivots.size;
  }

  /** A member's speed in terms of the free members; empty when it cannot turn. */
  row(member: string): ReadonlyMap<string, Rational> {
    return this.pivots.get(member) ?? new Map([[member, ONE]]);
  }

  /**
   * What `of` turns for one turn of `per`: null when it is not decided by it.
   *
   * @returns null too when `per` cannot turn.
   */
  speedPer(turned: string, per: string): Rational | null {
    const base = this.row(per);
    const [lead] = base;
    if (!lead) return null;
    const row = this.row(turned);
    const k = divide(row.get(lead[0]) ?? ZERO, lead[1]);
    return isEmpty(combine(row, base, negate(k))) ? k : null;
  }

  private reduce(equation: Equation): Combination {
    let rest: Combination = new Map();
    for (const [member, coefficient] of equation) rest = combine(rest, this.row(member), coefficient);
    return rest;
  }
}

/** a + k·b without the terms that vanish. */
export function combine(
  a: ReadonlyMap<string, Rational>,
  b: ReadonlyMap<string, Rational>,
  k: Rational,
): Combination {
  const result: Combination = new Map(a);
  for (const [member, c] of b) {
    const sum = add(result.get(member) ?? ZERO, multiply(c, k));
    if (isZero(sum)) result.delete(member);
    else result.set(member, sum);
  }
  return result;
}

function substitute(row: Combination, pivot: string, solved: Combination): Combination {
  const c = row.get(pivot);
  if (!c) return row;
  const rest = new Map(row);
  rest.delete(pivot);
  return combine(rest, solved, c);
}

const isEmpty = (row: Combination): boolean => row.size === 0;

/** Two members turn as one. */
export const tied = (a: string, b: string): Equation =>
  a === b
    ? new Map()
    : new Map([
        [a, ONE],
        [b, negate(ONE)],
      ]);

/** An equation from its terms; a member named twice has its coefficients added. */
export function equation(...terms: readonly [string, Rational][]): Equation {
  const result: Combination = new Map();
  for (const [member, c] of terms) result.set(member, add(result.get(member) ?? ZERO, c));
  return result;
}

/** A linear form over free speeds that must not be negative; nor nothing, when strict. */
export interface Demand {
  form: ReadonlyMap<string, Rational>;
  strict: boolean;
}

/**
 * Whether free speeds exist that meet all demands at once: Fourier and Motzkin's elimination, exact, for the handful of demands a train has.
 */
export function isPossible(demands: readonly Demand[]): boolean {
  const name = demands.flatMap(({ form }) => [...form.keys()])[0];
  if (name === undefined) return demands.every(({ strict }) => !strict);
  const at = ({ form }: Demand): Rational => form.get(name) ?? ZERO;
  const [up, down, rest] = [1, -1, 0].map((way) => demands.filter((one) => sign(at(one)) === way));
  const joined = (up ?? []).flatMap((a) =>
    (down ?? []).map((b): Demand => {
      const scale = divide(at(a), negate(at(b)));
      return { form: combine(a.form, b.form, scale), strict: a.strict || b.strict };
    }),
  );
  return isPossible([...(rest ?? []), ...joined]);
}
