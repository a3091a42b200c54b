/** What is said at the bench while the unit comes apart, is cleaned and is looked at. */
export type WorkBody =
  | {
      kind: "step";
      step: string;
      did: StepDone;
      reason: string;
      /** Where what came off was laid; what must not be used again goes out of circulation by itself. */
      to?: string;
    }
  /** Which places of a fastener group are out; the last word holds. */
  | { kind: "out"; group: string; places: number[] }
  /** Parts, or `bolts:` and a fastener group, laid somewhere: a place of this job, back in the unit, or out of circulation. */
  | { kind: "lies"; things: string[]; place: string }
  /** How a part sat before it came off, and what tells it from now on. */
  | { kind: "sat"; part: string; way: string; mark: MatchMark; note: string }
  | { kind: "count"; of: string; found: number }
  /** Check balls by their places in the book, and how many lay where it has none. */
  | { kind: "balls"; there: string[]; extra: number }
  | { kind: "wrong"; what: FoundWrong; of: string; note: string; there: boolean }
  | { kind: "cleaning"; things: string[]; state: Cleanliness; did: CleaningStep[] };

export const STEP_DONE = ["done", "skipped", "undone"] as const;
export type StepDone = (typeof STEP_DONE)[number];

/** Where a thing lies that lies in no place of the job's own. */
export const IN_UNIT = "unit";
export const SCRAPPED = "scrap";
/** Laid down, in no tray of its own. */
export const ON_BENCH = "bench";

export const MATCH_MARKS = ["maker’s mark", "own mark", "needs none"] as const;
export type MatchMark = (typeof MATCH_MARKS)[number];

/** What an earlier builder did, or what another version left. */
export const FOUND_WRONG = [
  ...(["too many", "too few", "missing", "turned round", "from another pack"] as const),
  ...(["another version’s part", "ring in the wrong groove", "damaged by an earlier repair"] as const),
] as const;
export type FoundWrong = (typeof FOUND_WRONG)[number];

/** A part that comes off is dirty; opened on the bench, what was bagged is dirty again. */
export const CLEANLINESS = ["dirty", "masked", "clean", "bagged", "opened"] as const;
export type Cleanliness = (typeof CLEANLINESS)[number];
export const CLEANING_STEPS = ["washed", "rinsed", "blown", "dried", "passages blown", "flushed"] as const;
export type CleaningStep = (typeof CLEANING_STEPS)[number];
