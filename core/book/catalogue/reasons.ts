/** Why a part is replaced on principle. */
export interface Reason {
  words: string;
  /** Only then, and not always: when metal went through it, with what it is sold with, when oil has come onto it. */
  only?: Only;
}
export const ONLY = ["after-metal", "with-its-set", "after-oil"] as const;
export type Only = (typeof ONLY)[number];

/** The reasons there are. A book may add its own in `reasons`. */
export const REASONS = {
  "metal-stays-in-the-mesh": { words: "metal stays in the mesh" },
  "metal-stays-in-it": { words: "metal stays in it" },
  "metal-and-fibres-stay-in-it": { words: "metal and fibres stay in it" },
  "cannot-be-cleaned": { words: "cannot be cleaned" },
  paper: { words: "paper" },
  "lip-dries-when-taken-off": { words: "lip dries when taken off" },
  "balls-fall-into-the-gears": { words: "balls fall into the gears" },
  "cracks-at-the-thread": { words: "cracks at the thread" },
  "cheap-now-dear-later": { words: "cheap now, dear later" },
  "after-metal": { words: "after metal: it cannot be cleaned", only: "after-metal" },
  "with-belt-and-secondary": {
    words: "with belt and secondary when one face is scored",
    only: "with-its-set",
  },
  "with-oil-on-a-disc": { words: "with oil on a disc: facings cannot be cleaned", only: "after-oil" },
} as const satisfies Readonly<Record<string, Reason>>;

/** What an element is applied for that changes no range. */
export const OUTSIDE = {
  converter: "the converter",
  "second-axle": "the second axle",
  "rear-axle": "the rear axle",
  "front-axle": "the front axle",
} as const;
export type Outside = keyof typeof OUTSIDE;
