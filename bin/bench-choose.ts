import loadHighs from "highs";
import { build } from "vite";
import { groupsOf } from "../core/select/joint/groups";
import { AT, optionsOf, type Option } from "../core/select/joint/options";
import type * as Select from "../core/select";
import { TERMS, type JointQuestion, type Term } from "../core/select";
import {
  contestedQuestion,
  oddQuestion,
  shopQuestion,
  waitingQuestion,
  type Shop,
} from "../core/testing/choices";
import { inOrder, programmed as byPlainProgram } from "../core/testing/referee";

const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

/** What is measured, on how many questions, and on how many of them beside HiGHS. */
const SIZES: readonly { shop: Omit<Shop, "seed">; runs: number; beside: number }[] = [
  { shop: { seats: 12, sizes: 40, series: 2, stock: 2 }, runs: 4_000, beside: 10 },
  { shop: { seats: 60, sizes: 120, series: 6, stock: 3 }, runs: 400, beside: 5 },
  { shop: { seats: 500, sizes: 400, series: 10, stock: 4 }, runs: 3, beside: 1 },
];
/** HiGHS is given so long for one term. */
const PATIENCE_S = 60;

/**
 * The joint choice beside HiGHS, an integer programming solver, on the same program and to the same optimum. HiGHS gets what our own search has left over of the ways to fill
 * seats that hang together, so that it has little to read; it solves term by term, each held at its best.
 */
export async function choose(say: (text: string) => void): Promise<void> {
  const highs = await loadHighs();
  const { chooseJointly } = await asShipped();
  say("\nchoosing together                own median   HiGHS median   ratio   of one term   proven   same");
  for (const { shop, runs, beside } of SIZES) {
    const questions = Array.from({ length: Math.min(runs, 20) }, (_, i) =>
      shopQuestion({ ...shop, seed: i + 1 }),
    );
    const own: number[] = [];
    let proven = 0;
    // The first term that is not proved, where not all are.
    const upTo: string[] = [];
    for (let i = 0; i < runs; i++) {
      const begun = performance.now();
      const plan = chooseJointly(questions[i % questions.length] as JointQuestion);
      own.push(performance.now() - begun);
      if (plan.proven) proven++;
      else upTo.push(TERMS[TERMS.findIndex((term, k) => plan.bound[k] !== plan.values[term])] ?? "");
    }
    const theirs: number[] = [];
    const firsts: number[] = [];
    let same = 0;
    const unfinished: number[] = [];
    for (const question of questions.slice(0, beside)) {
      const begun = performance.now();
      const { value, first, decided } = programmed(question, (program) => {
        const { Status, ObjectiveValue } = highs.solve(program, {
          mip_rel_gap: 0,
          output_flag: false,
          time_limit: PATIENCE_S,
        });
        return Status === "Optimal" ? Math.round(ObjectiveValue) : null;
      });
      theirs.push(performance.now() - begun);
      firsts.push(first);
      const plan = chooseJointly(question);
      if (decided < TERMS.length) unfinished.push(decided);
      if (TERMS.slice(0, decided).every((term, i) => plan.values[term] === value[i])) same++;
    }
    // The first half is warming up.
    const mine = median(own.slice(Math.floor(own.length / 2)));
    const [all, one] = [median(theirs), median(firsts)];
    const name = `${shop.seats} seats, ${shop.sizes} sizes, ${shop.series} series`;
    const some = unfinished.length > 0 ? `, of them so many terms alone: ${unfinished.join(", ")}` : "";
    say(
      `${name.padEnd(34)} ${mine.toFixed(2).padStart(7)} ms ${all.toFixed(0).padStart(11)} ms ${(all / mine).toFixed(0).padStart(6)}× ${(one / mine).toFixed(0).padStart(10)}×   ${proven}/${runs}${upTo.length > 0 ? ` (open: ${upTo.join(", ")})` : ""}   ${same}/${beside}${some}`,
    );
  }
}

/** The search built as browsers get it: what runs from the sources carries the names of its functions along, which costs a third more. */
async function asShipped(): Promise<Pick<typeof Select, "chooseJointly">> {
  const built = await build({
    configFile: false,
    logLevel: "error",
    build: { write: false, ssr: true, rollupOptions: { input: "core/select/index.ts" } },
  });
  const [made] = [built].flat();
  if (!made || !("output" in made)) throw new Error("the search was not built");
  const url = `data:text/javascript,${encodeURIComponent(made.output[0].code)}`;
  return (await import(url)) as typeof Select;
}

/** How many small questions of each kind have the same optimum by integer programming; two or three minutes. */
export async function referee(say: (text: string) => void): Promise<void> {
  const highs = await loadHighs();
  const { chooseJointly } = await asShipped();
  const solve = (program: string): { status: string; value: number } => {
    const solved = (more: object): ReturnType<typeof highs.solve> =>
      highs.solve(program, { mip_rel_gap: 0, output_flag: false, ...more });
    // Of one in some thousand HiGHS says that it cannot be solved, and solves it when it does not make it smaller before.
    let { Status, ObjectiveValue } = solved({});
    if (Status !== "Optimal") ({ Status, ObjectiveValue } = solved({ presolve: "off" }));
    return { status: Status, value: ObjectiveValue };
  };
  for (const [what, count, make] of [
    ["of all kinds", 2_000, (seed: number) => oddQuestion(seed + 20_000, 4)],
    ["that reach for the same last pieces", 200, (seed: number) => contestedQuestion(seed + 500)],
    ["of jobs of which somebody has to wait", 500, (seed: number) => waitingQuestion(seed + 500)],
  ] as const) {
    let [same, proven] = [0, 0];
    for (let seed = 1; seed <= count; seed++) {
      const question = make(seed);
      const plan = chooseJointly(question);
      const theirs = byPlainProgram(question, solve);
      if (plan.proven) proven++;
      if (inOrder(question, plan.values).every((value, i) => value === theirs[i])) same++;
      else say(`  NOT the same: ${what}, ${seed}`);
    }
    say(`small questions ${what}: ${same} of ${count} as HiGHS has them, ${proven} proved`);
  }
}

interface Programmed {
  value: number[];
  /** Milliseconds of the term that took longest to decide first. */
  first: number;
  /** How many terms it decided in time. */
  decided: number;
}

/** The same by integer programming, from the ways that are left over. */
function programmed(question: JointQuestion, solve: (program: string) => number | null): Programmed {
  const groups = groupsOf(question);
  const counts = question.lots.map(({ count }) => count);
  const others = TERMS.filter((term) => term !== "ready");
  const days = [...new Set(question.seats.flatMap(({ offers }) => offers.map(({ days: day = 0 }) => day)))];
  // For each day that all may have to be there by; a way that is there sooner stands for itself.
  const ways: Option[][] = groups.map((group) =>
    days.flatMap((latest) => optionsOf(group, { counts, most: 0, latest, terms: others })),
  );
  const jobs = [...new Set(groups.map(({ job }) => job))];
  const all = ways.flatMap((some, g) => some.map((way, w) => ({ g, name: `x${g}_${w}`, way })));
  const sum = (parts: readonly (readonly [number, string])[]): string =>
    parts.map(([times, name]) => `+ ${times} ${name}`).join("\n ");
  const constraints = groups.map(
    (_, g) => `${sum(all.filter((one) => one.g === g).map(({ name }) => [1, name] as const))} = 1`,
  );
  for (const [lot, count] of counts.entries()) {
    const takers = all.flatMap(({ name, way }) => {
      const times = way.lots.filter((one) => one === lot).length;
      return times > 0 ? [[times, name] as const] : [];
    });
    if (takers.length > count) constraints.push(`${sum(takers)} <= ${count}`);
  }
  // A job waits beyond a day where any of its groups does: one variable for each job and day.
  const waits = new Map<string, number>();
  const levels = [...new Set([0, ...days])].sort((a, b) => a - b);
  for (const [g, group] of groups.entries())
    for (const [k, day] of levels.entries()) {
      const later = all.filter((one) => one.g === g && (one.way.values[AT.ready] ?? 0) > day);
      if (later.length === 0) continue;
      const wait = `d${jobs.indexOf(group.job)}_${day}`;
      waits.set(wait, (levels[k + 1] ?? day) - day);
      constraints.push(`${sum(later.map(({ name }) => [1, name] as const))} - ${wait} <= 0`);
    }
  const objective = (term: Term): (readonly [number, string])[] =>
    term === "ready"
      ? [...waits].map(([wait, more]) => [more, wait] as const)
      : all.flatMap(({ name, way }) => {
          const value = way.values[AT[term]] ?? 0;
          return value > 0 ? [[value, name] as const] : [];
        });
  const held: string[] = [];
  let [first, isWhole, decided] = [0, true, 0];
  const value = TERMS.map((term) => {
    const parts = objective(term);
    if (isWhole) decided++;
    if (parts.length === 0 || !isWhole) return 0;
    const program = [
      "Minimize",
      ` obj: ${sum(parts)}`,
      "Subject To",
      ...[...constraints, ...held].map((line, i) => ` c${i}: ${line}`),
      "Binary",
      ...[...all.map(({ name }) => name), ...waits.keys()].map((name) => ` ${name}`),
      "End",
    ].join("\n");
    const begun = performance.now();
    const best = solve(program);
    first ||= performance.now() - begun;
    if (best === null) {
      isWhole = false;
      decided--;
      return 0;
    }
    held.push(`${sum(parts)} <= ${best}`);
    return best;
  });
  return { value, first, decided };
}
