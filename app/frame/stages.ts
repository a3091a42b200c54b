import { STAGES, type Next, type StageId } from "~core/stage";

export interface Page {
  /** Within the job; empty for its first page. */
  path: string;
  words: string;
}

/** The stages as the bench calls them, and the pages within each. Those of choosing are the packs, by the unit's axis, and beside them all together. */
export const STAGE_WORDS: Readonly<Record<StageId, string>> = {
  "book in": "Book in",
  "take down": "Take down",
  inspect: "Inspect",
  measure: "Measure",
  choose: "Choose",
  parts: "Parts",
  build: "Build",
  prove: "Prove",
  "hand over": "Hand over",
};
const PAGES: Readonly<Record<StageId, readonly Page[]>> = {
  "book in": [
    { path: "book-in", words: "Book in" },
    { path: "symptoms", words: "Symptoms" },
    { path: "before", words: "Before opening" },
    { path: "fault", words: "At fault?" },
    { path: "comeback", words: "Here before?" },
  ],
  "take down": [
    { path: "teardown", words: "Tear down" },
    { path: "bench", words: "Bench" },
  ],
  inspect: [
    { path: "inspect", words: "Inspect" },
    { path: "cause", words: "Cause" },
  ],
  measure: [{ path: "measure", words: "Measure" }],
  choose: [{ path: "choose", words: "All together" }],
  parts: [
    { path: "parts", words: "Parts" },
    { path: "stronger", words: "Stronger" },
  ],
  build: [
    { path: "build", words: "Build" },
    { path: "as-built", words: "As built" },
  ],
  prove: [{ path: "prove", words: "Prove" }],
  "hand over": [
    { path: "sheet", words: "Build sheet" },
    { path: "customer", words: "For the customer" },
  ],
};

/** @param path within the job, as `choose/d1-clearance`. */
export const stageOf = (path: string): StageId | null =>
  path.startsWith("choose/")
    ? "choose"
    : path.startsWith("prove/")
      ? "prove"
      : (STAGES.find((id) => PAGES[id].some((page) => page.path === path)) ?? null);

export const pagesOf = (stage: StageId | null): readonly Page[] => (stage ? PAGES[stage] : []);

/** Where a stage begins. */
export const entryOf = (stage: StageId, firstPack: string | undefined): string =>
  stage === "choose" ? `choose/${firstPack ?? ""}` : (PAGES[stage][0]?.path ?? "");

/** Where the next thing is done, within the job. */
export function placeOf({ what, subject, stage }: Pick<Next, "what" | "subject" | "stage">): string {
  switch (what) {
    case "symptoms":
      return "symptoms";
    case "step":
      return `teardown?step=${subject}`;
    case "part":
    case "question":
      return `inspect?part=${subject}`;
    case "cause":
    case "weak point":
      return "cause";
    case "pack":
      return `choose/${subject}`;
    case "figure":
      return stage === "book in"
        ? "before"
        : stage === "choose"
          ? `choose/${subject}`
          : `measure#row-${subject}`;
    case "trait":
      return "";
    case "renew":
      return "parts";
    case "build":
      return `${stage === "prove" ? "prove" : "build"}?step=${subject}`;
    case "proof":
    case "procedure":
    case "relearn":
    case "drive":
      return `prove?item=${what}-${subject}`;
    case "disagreement":
    case "close":
      return "sheet";
  }
}
