import type { CodesRead, FactOf, Job } from "../fact";

/** What a control unit remembers, as it was read for a proof. */
export interface CodesStanding {
  /** What counts: what was read last, after clearing where it was cleared. Null where nobody read. */
  fact: FactOf<"codes-read"> | null;
  /** Whether what is there was cleared once and is there all the same. */
  cleared: boolean;
  /** What the next reading is: nothing has to be cleared where nothing was found. */
  next: CodesRead;
  own: string[];
  /** Of something else in the vehicle: told to whoever it belongs to. */
  others: string[];
  at: "open" | "not so" | "done";
  words: string;
}

/**
 * How the codes of a proof stand: none is done at once; where there are any they are cleared and read again, and then what is left is not this unit’s.
 *
 * @param no what the book says is done where it is not so.
 */
export function codesAt(job: Job, proof: string, no = ""): CodesStanding {
  const first = job.codesRead.get(`${proof} first`) ?? null;
  const again = job.codesRead.get(`${proof} again`) ?? null;
  const fact = again ?? first;
  const all = fact?.body.codes ?? [];
  const [own, others] = [true, false].map((is) =>
    all.filter((one) => one.own === is).map(({ code }) => code),
  );
  const next: CodesRead = again || all.length > 0 ? "again" : "first";
  const standing = { fact, cleared: again !== null, next, own: own ?? [], others: others ?? [] };
  if (!fact) return { ...standing, at: "open", words: "to be read" };
  if (all.length === 0) return { ...standing, at: "done", words: again ? "none came back" : "none" };
  if (!again)
    return {
      ...standing,
      at: "not so",
      words: `${counted(standing.own.length)} of this unit, ${standing.others.length} not: clear, and look again`,
    };
  return standing.own.length > 0
    ? {
        ...standing,
        at: "not so",
        words: ["came back: " + standing.own.join(", "), no].filter(Boolean).join(". "),
      }
    : { ...standing, at: "done", words: `none of this unit; not of it: ${standing.others.join(", ")}` };
}

const counted = (n: number): string => (n === 1 ? "1 code" : `${n} codes`);

/** What was found in the rest of the vehicle, by the last reading of each proof. */
export const foreignCodes = (job: Job): string[] => [
  ...new Set(
    [...new Set([...job.codesRead.values()].map(({ body }) => body.proof))].flatMap(
      (id) => codesAt(job, id).others,
    ),
  ),
];
