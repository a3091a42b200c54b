import { listed, OUTSIDE } from "../book";
import { CONDITIONS, outcomeWords } from "../fact";
import { elementName, isMechanical, type Fault, type Common, type Unit } from "./cause";
import type { Told } from "./diagnose";
import { Mechanics, type Effect, type DrivingState } from "./mechanics";

/** Why a cause is suspected, as one would say it at the bench. */
export interface Working {
  /** What the unit would do: `D3 is on in 3, 5 and R. Without it there is no drive in 3, 5 and R.` */
  would: string;
  /** What is told of the places it touches, and of those that do without it. */
  told: string[];
  /** What is told otherwise. */
  against: string[];
}

const EFFECT: Readonly<Record<Effect["kind"], string>> = {
  drives: "",
  lost: "no drive in",
  bind: "two gears at once in",
  other: "another gear in",
  coasts: "no engine braking in",
  creeps: "it pulls in",
};

/** What a cause would do and how that stands to what is told. */
export function workingOf(
  unit: Unit,
  cause: Fault,
  told: readonly Told[],
  mechanics = new Mechanics(unit),
): Working {
  const { rows: states } = mechanics;
  const said = new Map<string, string[]>();
  for (const { question, outcome, conditions = [] } of told) {
    const when = conditions.map((one) => CONDITIONS.words[one]);
    const words = [outcomeWords(outcome), ...(when.length > 0 ? [listed(when)] : [])].join(" ");
    said.set(question, [...(said.get(question) ?? []), words]);
  }
  if (!isMechanical(cause)) return { would: COMMON[cause.kind], ...sides(states, said, () => true, cause) };
  const effects = new Map(states.map((row) => [row.id, mechanics.effect(row, [cause])]));
  const touched = (row: DrivingState): boolean => effects.get(row.id)?.kind !== "drives";
  const would =
    cause.kind === "element"
      ? wouldOf(unit, cause, states, effects)
      : `${cause.name} ${cause.member === null ? "moves" : "carries"} more than one range. Broken: ${felt(states, effects)}.`;
  return { would, ...sides(states, said, touched, cause) };
}

function wouldOf(
  unit: Unit,
  { element, fault }: Extract<Fault, { kind: "element" }>,
  rows: readonly DrivingState[],
  effects: ReadonlyMap<string, Effect>,
): string {
  const name = elementName(element);
  const on = unit.ranges.flatMap(({ id, applied, braking = [] }) => [
    ...(applied.includes(element.id) ? [id] : []),
    ...(braking.includes(element.id) ? [`${id} held by hand`] : []),
  ]);
  const place = element.outside
    ? `${name} works ${OUTSIDE[element.outside]} and changes no range.`
    : `${name} is on in ${listed(on) || "no range"}.`;
  const kinds = felt(rows, effects);
  const what =
    fault === "on"
      ? "Not let go"
      : fault === "unfed"
        ? "Not worked"
        : element.kind === "one-way clutch"
          ? "Not holding"
          : "Without it";
  return kinds ? `${place} ${what}: ${kinds}.` : place;
}

/** What is felt where: `no drive in 3 and R; two gears at once in 5`. */
const felt = (rows: readonly DrivingState[], effects: ReadonlyMap<string, Effect>): string =>
  (["lost", "bind", "other", "coasts", "creeps"] as const)
    .flatMap((kind) => {
      const names = rows.filter(({ id }) => effects.get(id)?.kind === kind).map((row) => row.name);
      return names.length > 0 ? [`${EFFECT[kind]} ${listed(names)}`] : [];
    })
    .join("; ");

function sides(
  rows: readonly DrivingState[],
  said: ReadonlyMap<string, readonly string[]>,
  touched: (row: DrivingState) => boolean,
  cause: Fault,
): Pick<Working, "told" | "against"> {
  const known = rows.filter(({ id }) => said.has(id));
  const normal = (row: DrivingState): boolean =>
    (said.get(row.id) ?? []).every((what) => ["fine", "stays"].includes(what));
  const words = (which: readonly DrivingState[]): string =>
    which.map((row) => `${row.name} ${(said.get(row.id) ?? []).join(" and ")}`).join(", ");
  const hit = known.filter((row) => touched(row) && !normal(row));
  const spared = known.filter((row) => !touched(row) && normal(row));
  const unexplained = known.filter((row) => !touched(row) && !normal(row));
  // What feeds or carries every range would be felt in each; the other common causes may spare some.
  const mechanical = isMechanical(cause);
  const everywhere = mechanical || cause.kind === "pressure" || cause.kind === "variator";
  const idle = (row: DrivingState): boolean => row.kind === "neutral" || row.kind === "standing";
  const missed = everywhere
    ? known.filter((row) => touched(row) && normal(row) && (mechanical || !idle(row)))
    : [];
  return {
    told: [
      ...(hit.length > 0 ? [`Fits: ${words(hit)}.`] : []),
      ...(spared.length > 0 ? [`Fits: ${words(spared)}, which do not need it.`] : []),
    ],
    against: [
      ...(missed.length > 0 ? [`Against: ${words(missed)}, though it is needed there.`] : []),
      ...(unexplained.length > 0 ? [`Not explained by it: ${words(unexplained)}.`] : []),
    ],
  };
}

const COMMON: Readonly<Record<Common, string>> = {
  pressure: "Every element is fed by it: all ranges slip, come late or do not come, mostly hot.",
  converter: "It sits before all ranges: shudder, noise or weak pull in every one, whatever is applied.",
  control:
    "It decides when elements come on: harsh, late, missing or wrong changes, often after an electrical code.",
  mechanics: "Forks and drums move the gears of both shafts: several will not engage, grind or hang.",
  variator: "The belt carries every forward and reverse drive: slip, shudder or noise at any ratio.",
  gears: "Gears and bearings turn in every range: noise that follows speed, clunks on and off the throttle.",
  elsewhere:
    "Engine, wiring, mounts, shafts and axle feel like a transmission: shudder under load, clunks, and no range more than another.",
};
