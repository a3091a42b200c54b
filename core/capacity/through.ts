import type { Book, Part, StrongerWay } from "../book";
import { baseOfTrain, loadsOf } from "../gears";
import { baseOf, toNumber, type Measure } from "../quantity";
import { demandsOf, startsIn, type Duty, type Judged } from "./unit";

/** A shaft, hub or drum with what runs through it at the worst, and what it is made to take. */
export interface Through {
  part: Part;
  /** The stronger part that is planned for it, where it is. */
  way: StrongerWay | null;
  /** What it takes, N·m. */
  takes: number;
  /** What runs through it at the worst, N·m, and in which range. */
  torque: number;
  range: string;
  margin: number;
  judged: Exclude<Judged, "unknown" | "unloaded">;
}

/** What breaks has no slip to warn anybody: so much should be over. */
const OVER = 1.25;

/**
 * The parts of which the book says what they are made to take, beside what the planned engine puts through them: those that break first on top.
 *
 * A shaft that is the input or the output carries what the unit is given, or gives; one in between what the elements and gears on one side of it put
 * on it, which is the sum of the elements that join its member (in equilibrium the gears carry the rest). A hub or drum carries what its element
 * holds.
 *
 * @param ways that are planned: a stronger part takes what its way says.
 */
export function throughParts(
  present: Book,
  duty: Pick<Duty, "torque" | "stall">,
  ways: readonly StrongerWay[] = [],
): Through[] {
  return present.parts
    .flatMap((part): Through[] => {
      if (!part.takes) return [];
      const way = ways.find((one) => one.part === part.id && one.takes) ?? null;
      const takes = numberOf(way?.takes ?? part.takes.torque);
      const worst = worstThrough(present, duty, part.takes);
      if (!worst || worst.torque <= 0) return [];
      const margin = takes / worst.torque;
      const judged = margin < 1 ? "slips" : margin < OVER ? "thin" : "enough";
      return [{ part, way, takes, ...worst, margin, judged }];
    })
    .sort((a, b) => a.margin - b.margin || (a.part.id < b.part.id ? -1 : 1));
}

const numberOf = (measure: Measure): number => toNumber(baseOf(measure));

interface Worst {
  torque: number;
  range: string;
}

const heavier = (a: Worst | null, b: Worst): Worst => (a && a.torque >= b.torque ? a : b);

function worstThrough(
  present: Book,
  duty: Pick<Duty, "torque" | "stall">,
  { member, element }: NonNullable<Part["takes"]>,
): Worst | null {
  if (element !== undefined)
    return (demandsOf(present, duty).get(element) ?? []).reduce<Worst | null>(
      (worst, { torque, range }) => heavier(worst, { torque, range }),
      null,
    );
  if (member === undefined) return null;
  const base = baseOfTrain(present);
  const starts = startsIn(present);
  const held = new Map(Object.entries(present.unit.behind?.held ?? {}));
  return present.ranges.reduce<Worst | null>((worst, { id, applied, ratio }) => {
    const given = duty.torque * (held.get(id) ?? 1) * (starts.has(id) ? duty.stall : 1);
    const share = shareOf(present, member, { ratio, loads: loadsOf(present, applied, base)?.loads ?? [] });
    return share === null ? worst : heavier(worst, { torque: given * share, range: id });
  }, null);
}

/** Of the torque at the input, what runs through a member. */
function shareOf(
  { train, elements }: Book,
  member: string,
  {
    ratio,
    loads,
  }: { ratio: number; loads: readonly { element: string; share: Parameters<typeof toNumber>[0] }[] },
): number | null {
  if (member === train.input) return 1;
  if (member === train.output) return Math.abs(ratio);
  const joined = loads.flatMap(({ element, share }) => {
    const joins = elements.find(({ id }) => id === element)?.joins;
    const at = joins?.indexOf(member) ?? -1;
    return at < 0 ? [] : [at === 0 ? toNumber(share) : -toNumber(share)];
  });
  return joined.length === 0 ? null : Math.abs(joined.reduce((sum, one) => sum + one, 0));
}
