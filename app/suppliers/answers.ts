import {
  check,
  day,
  list,
  maybeWords,
  object,
  optional,
  orNothing,
  whole,
  words,
  type Read,
} from "~core/shape";

/** One line of an order as its supplier answers to it, or tells how far it is. */
const line = object({
  part: words(1, 80),
  /** By when all of it is here; nothing where nobody knows. */
  due: optional(orNothing(day)),
  /** Pieces on the road. */
  sent: optional(whole(0, 1_000_000)),
  /** Why it does not come. */
  refused: optional(maybeWords(300)),
});

/** What a supplier answers to an order, and when it is asked how far it is. */
const order = object({ order: words(1, 80), lines: list(line, 0, 2_000) });
/** An answer that is no, in words. */
const no = object({ why: words(1, 300) });

export type OrderAnswer = Read<typeof order>;

/**
 * What a supplier said to an order.
 *
 * @throws where it is not what suppliers answer: it is asked again.
 */
export function readOrder(body: unknown): OrderAnswer {
  const { value, problems } = check(order, body);
  if (problems[0]) throw new Error(`no answer to an order: ${problems[0].path} ${problems[0].message}`);
  return value;
}

/** Why a supplier said no; its own words where it has any. */
export function readNo(body: unknown): string {
  const { value, problems } = check(no, body);
  return problems.length === 0 ? value.why : "no reason given";
}
