import type { PackChain, SeatSize, StackEntry, StrongerWay, Strengthening } from "../book";
import { isDecided, isFromShelf } from "../book";
import { counts, countOf, thicknessOf } from "../pack";
import { nm, type Nm } from "../quantity";

/** A stack that fits where the stock one was. */
export interface PlatePlan {
  frictions: number;
  steels: number;
  stack: StackEntry[];
  /** The ways it makes use of. */
  ways: string[];
  /** The piece that closes the pack; null where it has none to choose. */
  ring: SeatSize | null;
  /** Metal that comes off in all, and off which part how much, in the steps of each. */
  cut: Nm;
  cuts: Strengthening["cuts"][number][];
  /** What the clearance will be. */
  gap: Nm;
  /** The book’s limits, grown with the number of frictions: each wants its room. */
  limits: { min: Nm; max: Nm };
  /** Whether a sprung plate of the stock stack is still in. */
  isSprung: boolean;
}

/** What is known of the pack as it is: its clearance, read or nominal, and the piece that was in. */
export interface PlateStart {
  gap: Nm;
  ring: Nm | null;
}

/** More plates than these above stock are not tried. */
const MOST_MORE = 6;
const SPRUNG: ReadonlySet<string> = new Set(["waved plate", "cushion plate"]);

/** Whether a sprung plate lies in a stack. */
export const isSprungStack = (stack: readonly Pick<StackEntry, "role">[]): boolean =>
  stack.some(({ role }) => SPRUNG.has(role));

/**
 * The most plates that fit, by the same sum the clearance is: what leaves the stack makes room, what comes in takes it, and a piece of the series
 * or metal that comes off does the rest.
 *
 * @param ways what may be done to it; not all need be.
 * @param isThere whether a size lies on the shelf; those that do are taken first. @param step what limits are told to; they are never wider for it.
 * @returns for each number of frictions from the stock one, the best stack with the sprung plate kept and the best without it: least metal off, a
 * piece that is there, least changed, nearest the middle. Fewest frictions first.
 */
export function platePlans(
  pack: Pick<PackChain, "stack" | "spec" | "seats">,
  ways: readonly StrongerWay[],
  start: PlateStart,
  isThere: (size: SeatSize) => boolean = () => true,
  step: Nm = nm(1),
): PlatePlan[] {
  const stock = counts(pack.stack).frictions;
  // Of plates faced on one side one more is no pair: what the book lists stays.
  const before = thicknessOf(pack.stack);
  const { min: least, max: most } = pack.spec;
  if (
    stock === 0 ||
    before === null ||
    least === undefined ||
    most === undefined ||
    pack.stack.some(({ faced }) => faced !== undefined && faced !== "both sides")
  )
    return [];
  const seat = pack.seats.find((one) => isDecided(one) && isFromShelf(one));
  const rings: (SeatSize | null)[] = seat && start.ring !== null ? [...seat.sizes] : [null];
  const offs = offsOf(ways);
  const plans: { plan: PlatePlan; cost: number[] }[] = [];
  for (let frictions = stock; frictions <= stock + MOST_MORE; frictions++) {
    const limits = {
      min: nm(Math.ceil((least * frictions) / stock / step) * step),
      max: nm(Math.floor((most * frictions) / stock / step) * step),
    };
    for (const { stack, used, isSprung } of stacks(pack.stack, ways, frictions - stock)) {
      const room = start.gap + before - (thicknessOf(stack) ?? before);
      for (const ring of rings) {
        const closed = seat && ring ? seat.sign * (ring.size - (start.ring ?? ring.size)) : 0;
        // The least metal that brings it inside.
        const cut = offs.find(({ off }) => room + closed + off >= limits.min);
        if (!cut || room + closed + cut.off > limits.max) continue;
        plans.push({
          plan: {
            frictions,
            steels: counts(stack).steels,
            stack,
            ways: [...new Set([...used, ...cut.cuts.map(({ way }) => way)])],
            ring,
            cut: nm(cut.off),
            cuts: cut.cuts,
            gap: nm(room + closed + cut.off),
            limits,
            isSprung,
          },
          cost: [
            cut.off,
            ring && !isThere(ring) ? 1 : 0,
            used.length,
            Math.abs(room + closed + cut.off - (limits.min + limits.max) / 2),
          ],
        });
      }
    }
  }
  return bestOfEach(plans);
}

function bestOfEach(plans: readonly { plan: PlatePlan; cost: number[] }[]): PlatePlan[] {
  const best = new Map<string, { plan: PlatePlan; cost: number[] }>();
  for (const one of plans) {
    const key = `${one.plan.frictions} ${one.plan.isSprung}`;
    const known = best.get(key);
    if (
      !known ||
      before(one.cost, known.cost) ||
      (!before(known.cost, one.cost) && nameOf(one.plan) < nameOf(known.plan))
    )
      best.set(key, one);
  }
  return [...best.values()].map(({ plan }) => plan);
}

/** Of two that are worth the same the name decides, so that the order in which ways are listed does not. */
const nameOf = ({ ways, ring }: PlatePlan): string => [...ways].sort().join() + (ring?.mark ?? "");

const before = (a: readonly number[], b: readonly number[]): boolean => {
  const at = a.findIndex((value, i) => value !== b[i]);
  return at >= 0 && (a[at] ?? 0) < (b[at] ?? 0);
};

/** Everything that can come off, from nothing up: of several parts in all their steps together. */
function offsOf(ways: readonly StrongerWay[]): { off: number; cuts: PlatePlan["cuts"] }[] {
  const all = ways.reduce(
    (sums, { id, cut }) =>
      cut
        ? sums.flatMap(({ off, cuts }) =>
            Array.from({ length: Math.floor(cut.most / cut.step) + 1 }, (_, i) => ({
              off: off + i * cut.step,
              cuts: i === 0 ? cuts : [...cuts, { way: id, part: cut.part, off: nm(i * cut.step) }],
            })),
          )
        : sums,
    [{ off: 0, cuts: [] as PlatePlan["cuts"] }],
  );
  return all.sort((a, b) => a.off - b.off || a.cuts.length - b.cuts.length);
}

/** Every stack the ways allow with so many more frictions, and a steel for each. */
function* stacks(
  stock: readonly StackEntry[],
  ways: readonly StrongerWay[],
  more: number,
): Generator<{ stack: StackEntry[]; used: string[]; isSprung: boolean }> {
  const leaving = ways.filter(({ without }) => stock.some(({ role }) => role === without));
  const others = (["steels", "frictions", "apply", "reaction"] as const).map((what) => {
    const fit = ways.filter((one) => one[what] && stock.some(({ role }) => role === ROLES[what]));
    // A facing that grips more is wanted for its grip, whether room is needed or not.
    const gripping = fit.filter(({ frictions }) => what === "frictions" && frictions?.friction !== undefined);
    return gripping.length > 0 ? gripping : [null, ...fit];
  });
  for (const gone of [null, ...leaving])
    for (const [steels, frictions, apply, reaction] of choices(others)) {
      const used = [gone, steels, frictions, apply, reaction].flatMap((one) => one?.id ?? []);
      const stack = stock
        .filter(({ role }) => gone?.without !== role)
        .map((entry): StackEntry => {
          const by = new Map<string, { thickness: Nm } | undefined>([
            ["steel", steels?.steels],
            ["friction", frictions?.frictions],
            ["apply plate", apply?.apply],
            ["reaction plate", reaction?.reaction],
          ]).get(entry.role);
          return by ? { ...entry, thickness: by.thickness } : entry;
        });
      const grown = withMore(withMore(stack, "steel", more), "friction", more);
      if (grown)
        yield {
          stack: grown,
          used: [...new Set(used)],
          isSprung: isSprungStack(stack),
        };
    }
}

const ROLES = {
  steels: "steel",
  frictions: "friction",
  apply: "apply plate",
  reaction: "reaction plate",
} as const;

/** So many more of a role, where most of them lie; null where there is none to add to. */
function withMore(
  stack: readonly StackEntry[] | null,
  role: StackEntry["role"],
  more: number,
): StackEntry[] | null {
  if (!stack) return null;
  if (more === 0) return [...stack];
  const most = stack
    .filter((entry) => entry.role === role && entry.seat === undefined)
    .sort((a, b) => countOf(b) - countOf(a))[0];
  return most
    ? stack.map((entry) => (entry === most ? { ...entry, count: countOf(entry) + more } : entry))
    : null;
}

function* choices<T>([first, ...rest]: readonly (readonly T[])[]): Generator<T[]> {
  if (!first) {
    yield [];
    return;
  }
  for (const one of first) for (const others of choices(rest)) yield [one, ...others];
}
