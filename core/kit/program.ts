/** An integer program’s answer: the value of each variable, and whether none is better. */
export interface Solved {
  values: ReadonlyMap<string, number>;
  proven: boolean;
}
/** Solves an integer program written in the CPLEX LP format; null where no answer is possible, or none was found in time. */
export type SolveProgram = (program: string) => Solved | null;

/** Costs are whole: an answer that is less than one from the best there could be is the best. */
const WHOLE = 0.99;
/** What is not proved by then is told for what it is. */
const PATIENCE_S = 2;

interface Options {
  mip_rel_gap: number;
  mip_abs_gap: number;
  time_limit: number;
  output_flag: boolean;
}

/**
 * A solver in the manner of HiGHS’s JavaScript build, as {@link SolveProgram}.
 *
 * @param patience seconds until it tells the best it has found.
 */
export const solvedBy =
  (
    highs: { solve: (program: string, options: Options) => { Status: string; Columns: object } },
    patience = PATIENCE_S,
  ): SolveProgram =>
  (program) => {
    const { Status, Columns } = highs.solve(program, {
      mip_rel_gap: 0,
      mip_abs_gap: WHOLE,
      time_limit: patience,
      output_flag: false,
    });
    const all = Object.entries(Columns as Readonly<Record<string, { Primal?: number }>>);
    const isFound =
      all.length > 0 && all.every(([, { Primal }]) => Primal !== undefined && Number.isFinite(Primal));
    if (!isFound || !["Optimal", "Time limit reached"].includes(Status)) return null;
    return {
      values: new Map(all.map(([name, { Primal = 0 }]) => [name, Math.round(Primal)])),
      proven: Status === "Optimal",
    };
  };

/** One whole number that is chosen: what one of it costs, its bound, and how much of each number it brings. */
export interface Column {
  name: string;
  cost: number;
  most: number;
  brings: readonly (readonly [number: string, count: number])[];
}

/**
 * The cheapest whole numbers that bring at least what is wanted.
 *
 * @param wanted pieces by part number.
 * @returns how many of each column, by its name; null where it cannot be met, or was not in time.
 */
export function cheapest(
  columns: readonly Column[],
  wanted: ReadonlyMap<string, number>,
  solve: SolveProgram,
): Solved | null {
  const rows = [...wanted].map(([number, count], i) => {
    const parts = columns.flatMap(({ name, brings }) =>
      brings.flatMap(([of, many]) => (of === number ? [`+ ${Math.min(many, count)} ${name}`] : [])),
    );
    return parts.length === 0 ? null : ` w${i}: ${parts.join("\n ")} >= ${count}`;
  });
  const boxes = columns.filter(({ brings }) => brings.length !== 1 || brings[0]?.[1] !== 1);
  if (rows.includes(null)) return null;
  if (rows.length === 0) return { values: new Map(), proven: true };
  return solve(
    [
      "Minimize",
      ` obj: ${columns.map(({ name, cost }) => `+ ${cost} ${name}`).join("\n ")}`,
      "Subject To",
      ...rows,
      "Bounds",
      ...columns.map(({ name, most }) => ` 0 <= ${name} <= ${most}`),
      // What brings single pieces of one number is whole by itself once the boxes are: it stands in one row alone.
      ...(boxes.length > 0 ? ["General", ...boxes.map(({ name }) => ` ${name}`)] : []),
      "End",
    ].join("\n"),
  );
}
