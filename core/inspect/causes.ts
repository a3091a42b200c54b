import type { WearId } from "../book";
import { FOUND_WRONG } from "../fact";
import type { Failed } from "./failed";
import type { Seen } from "./seen";

/*
 * The model: each cause has a weight before anything is known, and every piece of evidence multiplies it. The figures are guesses, made up as
 * everything in the demo is; what matters is their order. A cause that nobody could name keeps a weight of its own, so nothing is ever certain.
 */

/** A question that evidence answers; `null` while nobody has looked. */
export interface Test {
  check: string;
  /** The answer: true speaks for the cause. */
  known: boolean | null;
  yes: string;
  no: string;
  /** Factors when true and when false. */
  weigh: [number, number];
}

export interface FailureCause {
  id: string;
  name: string;
  weight: number;
  tests: Test[];
}

const test = (
  check: string,
  known: boolean | null,
  yes: string,
  no: string,
  ...weigh: [number, number]
): Test => ({
  check,
  known,
  yes,
  no,
  weigh,
});

// Which kinds of wear speak for a cause; a book's own kind of wear counts as the one it is like.
const SEAL_GONE: readonly WearId[] = ["lip-hard", "lip-flat", "flat", "cut", "hard", "seal-hard"];
const RING_RUNS_OFF: readonly WearId[] = [
  ...(["ends-rounded", "run-off", "ring-groove-rounded", "ring-bore-grooved"] as const),
  ...(["journal-worn", "journal-grooved", "ring-groove-stepped"] as const),
];
const BUSHING_GONE: readonly WearId[] = ["copper-showing", "spun", "lost", "bushing-spun"];
const PISTON_OPEN: readonly WearId[] = ["cracked", "bond-torn", "pitted", "porous"];
const DRUM_GROOVED: readonly WearId[] = ["ring-bore-grooved", "band-surface-grooved", "grooved", "scored"];
const RAN_DRY_NEAR: readonly WearId[] = ["pitted", "copper-showing", "teeth-pitted", "bluing"];
const BEARING_ROUGH: readonly WearId[] = ["pitted", "rough", "balls-out"];
const FORK_GONE: readonly WearId[] = ["pads-worn", "bent", "ball-bearing-broken", "balls-out", "bush-worn"];
const SHEAVE_MARKED: readonly WearId[] = ["scored", "polished-band", "runout", "face-scored"];
const BEARING_SHEDS: readonly WearId[] = ["pitted", "rough", "bearing-seat-spun"];
const RAN_DRY: readonly WearId[] = ["rollers-out", "spun", "copper-showing", "seized", "bluing"];
const VALVE_WORN: readonly WearId[] = [
  ...(["sticking", "valve-sticking", "valves-sticking", "bore-worn", "bores-worn"] as const),
  ...(["bore-scored", "drifts", "cracked"] as const),
];

/** What each kind of failure can come from. */
export const CAUSES: Readonly<Record<Failed["kind"], (seen: Seen) => FailureCause[]>> = {
  pack: (seen) => [
    {
      id: "seal-leak",
      name: "Leak past a piston seal",
      weight: 2,
      tests: [
        test(
          "look at the piston’s seals",
          seen.worn(["piston", "seal", "O-ring"], SEAL_GONE),
          "a seal of it is worn",
          "its seals are good",
          6,
          0.3,
        ),
        test(
          `leak-down of ${seen.name}`,
          seen.outside(["leak-down"], seen.ids),
          "it loses pressure",
          "it holds its pressure",
          5,
          0.2,
        ),
        test(
          "tell whether it engages late",
          seen.told(["delayed", "slips", "flares"]),
          "late or slipping in its ranges",
          "no slip told in its ranges",
          1.5,
          0.7,
        ),
      ],
    },
    {
      id: "ring-leak",
      name: "Leak at a sealing ring or the bore it runs in",
      weight: seen.has("sealing ring", "drum") ? 1.4 : 0.7,
      tests: [
        test(
          "look at the sealing rings",
          seen.worn(["sealing ring", "drum", "support", "shaft"], RING_RUNS_OFF),
          "a ring or its bore is worn",
          "rings and bores are good",
          6,
          0.35,
        ),
        test(
          "side clearance of the rings",
          seen.outside(["side clearance", "end gap"], seen.ids),
          "a ring has too much room",
          "the rings fit",
          4,
          0.5,
        ),
      ],
    },
    {
      id: "bushing",
      name: "Worn bushing lets a sealing ring run off",
      weight: seen.has("bushing") ? 0.8 : 0.1,
      tests: [
        test(
          "bushing clearance of its drum",
          seen.outside(["bushing clearance"], seen.ids),
          "its bushing is outside",
          "its bushing is inside",
          7,
          0.25,
        ),
        test(
          "look at its bushing",
          seen.worn(["bushing"], BUSHING_GONE),
          "its bushing is worn",
          "its bushing is good",
          3,
          0.5,
        ),
      ],
    },
    {
      id: "piston",
      name: "Piston cracked or its bond torn",
      weight: 0.7,
      tests: [
        test(
          "look at the piston",
          seen.worn(["piston"], PISTON_OPEN),
          "the piston is cracked or torn",
          "the piston is whole",
          12,
          0.15,
        ),
      ],
    },
    {
      id: "bleed",
      name: "Plugged bleed: it never let go",
      weight: 0.4,
      tests: [
        test(
          "look at the bleed",
          seen.worn(["piston", "drum"], ["bleed-plugged"]),
          "the bleed is plugged",
          "the bleed is open",
          14,
          0.4,
        ),
        test(
          "tell whether it creeps or binds",
          seen.told(["binds", "stuck-in-it", "harsh"]),
          "binding told",
          "no binding told",
          2,
          0.8,
        ),
      ],
    },
    {
      id: "clearance",
      name: "Wrong clearance",
      weight: 0.7,
      tests: [
        test(
          "its clearance as found",
          seen.clearance === null ? null : seen.clearance === "tight",
          "it was built tight: it dragged",
          seen.clearance === "loose" ? "loose, as burnt facings are" : "its clearance was inside",
          9,
          seen.clearance === "loose" ? 0.9 : 0.3,
        ),
      ],
    },
    wrongParts(seen),
  ],
  band: (seen) => [
    {
      id: "servo",
      name: "Servo leaks or its travel is wrong",
      weight: 2,
      tests: [
        test(
          "look at the servo",
          seen.anywhere(["servo"], "any"),
          "the servo is worn",
          "the servo is good",
          5,
          0.3,
        ),
        test(
          "servo travel",
          seen.outside(["servo travel"]),
          "its travel is outside",
          "its travel is inside",
          7,
          0.2,
        ),
      ],
    },
    {
      id: "drum",
      name: "Drum’s band surface grooved",
      weight: 0.8,
      tests: [
        test(
          "look at the drum",
          seen.anywhere(["drum"], DRUM_GROOVED),
          "the drum is grooved",
          "the drum is smooth",
          5,
          0.4,
        ),
      ],
    },
    wrongParts(seen),
  ],
  "one-way clutch": (seen) => [
    {
      id: "lubrication",
      name: "Lubrication lost",
      weight: 1,
      tests: [
        test(
          "look for blued neighbours",
          seen.anywhere(["thrust bearing", "bushing", "carrier"], RAN_DRY_NEAR),
          "its neighbours ran dry too",
          "its neighbours are good",
          4,
          0.5,
        ),
      ],
    },
    {
      id: "shock",
      name: "Shock: stuck and spun, or hard use",
      weight: 1,
      tests: [test("ask how it is driven", seen.use, "hard use told", "ordinary use", 3, 0.7)],
    },
    {
      id: "springs",
      name: "Springs or rollers weak with age",
      weight: 1,
      tests: [
        test(
          "look at its springs",
          seen.worn(["one-way clutch"], ["springs-weak"]),
          "its springs are weak",
          "its springs are good",
          5,
          0.5,
        ),
      ],
    },
    wrongParts(seen),
  ],
  synchroniser: (seen) => [
    {
      id: "release",
      name: "The clutch drags: it does not let go",
      weight: 1.6,
      tests: [
        test(
          "drag torque of the clutch",
          seen.outside(["turning torque"]),
          "it drags",
          "it turns free",
          5,
          0.3,
        ),
        test(
          "look at the pilot and shaft bearings",
          seen.anywhere(["bearing"], BEARING_ROUGH),
          "a shaft bearing is rough",
          "the shaft bearings are good",
          2,
          0.7,
        ),
      ],
    },
    {
      id: "fork",
      name: "Fork worn or bent: it does not push straight",
      weight: 1.2,
      tests: [
        test(
          "look at the forks",
          seen.anywhere(["fork"], FORK_GONE),
          "a fork is worn",
          "the forks are good",
          5,
          0.4,
        ),
        test(
          "fork pad clearance",
          seen.outside(["wear gap"], seen.ofKind("fork")),
          "a pad is outside",
          "the pads are inside",
          4,
          0.5,
        ),
      ],
    },
    { id: "fluid", name: "Wrong or old fluid", weight: 0.6, tests: [fluidTest(seen)] },
    {
      id: "abuse",
      name: "Forced in, or many kilometres",
      weight: 0.7,
      tests: [test("ask how it is driven", seen.use, "hard use told", "ordinary use", 3, 0.6)],
    },
    wrongParts(seen),
  ],
  belt: (seen) => [
    {
      id: "sheave",
      name: "Metal between belt and sheave",
      weight: 1.2,
      tests: [
        test(
          "look at the sheave faces",
          seen.anywhere(["pulley"], SHEAVE_MARKED),
          "a face is scored",
          "the faces are even",
          5,
          0.4,
        ),
        test(
          "look at the bearings",
          seen.anywhere(["bearing", "taper bearing"], BEARING_SHEDS),
          "a bearing sheds metal",
          "the bearings are good",
          3,
          0.6,
        ),
      ],
    },
    {
      id: "alignment",
      name: "Pulleys out of line",
      weight: 0.8,
      tests: [
        test(
          "pulley alignment",
          seen.outside(["pulley alignment"]),
          "alignment outside",
          "alignment inside",
          8,
          0.25,
        ),
      ],
    },
    { id: "fluid", name: "Wrong or old fluid", weight: 0.8, tests: [fluidTest(seen)] },
    {
      id: "abuse",
      name: "Overload",
      weight: 0.7,
      tests: [test("ask how it is driven", seen.use, "hard use told", "ordinary use", 3, 0.6)],
    },
  ],
  cassette: (seen) => [
    {
      id: "shaft-seal",
      name: "Shaft seal leaks onto the disc",
      weight: 1.2,
      tests: [
        test(
          "look for oil on the discs",
          seen.worn(["cassette"], ["oil-on-a-disc"]),
          "oil on a disc",
          "the discs are dry",
          8,
          0.2,
        ),
        test(
          "look at the shaft seals",
          seen.anywhere(["seal"], ["lip-hard", "seal-hard", "hard"]),
          "a shaft seal is hard",
          "the seals are good",
          3,
          0.6,
        ),
      ],
    },
    {
      id: "rest",
      name: "Engagement bearing’s rest position wrong",
      weight: 1,
      tests: [
        test(
          "rest positions",
          seen.outside(["rest position"]),
          "a rest position is outside",
          "rest positions inside",
          6,
          0.3,
        ),
      ],
    },
    {
      id: "age",
      name: "Worn by its kilometres",
      weight: 1.2,
      tests: [
        test(
          "look at the linings",
          seen.worn(["cassette"], ["discs-worn", "lining-worn", "lining-loose"]),
          "linings worn evenly",
          "linings are thick",
          4,
          0.3,
        ),
      ],
    },
    {
      id: "abuse",
      name: "Held on the clutch, towing",
      weight: 0.8,
      tests: [test("ask how it is driven", seen.use, "hard use told", "ordinary use", 4, 0.6)],
    },
    wrongParts(seen),
  ],

  "hard part": (seen) => [
    {
      id: "knocked-on",
      name: "What broke elsewhere went through it",
      weight: 1.2,
      tests: [
        test(
          "look at what else is beyond use",
          seen.othersBroken,
          "another part is beyond use too",
          "nothing else is broken",
          2.5,
          0.3,
        ),
        test("look at the debris", seen.chunks, "chunks in the debris", "no chunks in the debris", 2, 0.6),
      ],
    },
    {
      id: "no-oil",
      name: "Ran short of fluid or lubrication",
      weight: 1,
      tests: [
        test(
          "look at bearings and bushings for heat",
          seen.anywhere(["thrust bearing", "bearing", "bushing"], RAN_DRY),
          "bearings or bushings ran dry",
          "bearings and bushings are good",
          4,
          0.4,
        ),
        fluidTest(seen),
      ],
    },
    {
      id: "play",
      name: "End play, preload or backlash was wrong",
      weight: 0.9,
      tests: [
        test(
          "end plays and preloads as found",
          seen.outside(["end play", "preload", "backlash"]),
          "a play or preload is outside",
          "plays and preloads are inside",
          6,
          0.3,
        ),
      ],
    },
    {
      id: "abuse",
      name: "Overload: shocks, towing, spinning wheels",
      weight: 0.8,
      tests: [test("ask how it is driven", seen.use, "hard use told", "ordinary use", 4, 0.6)],
    },
    wrongParts(seen),
  ],
};

const wrongParts = (seen: Seen): FailureCause => ({
  id: "wrong-parts",
  name: "Wrong parts, or built wrong before",
  weight: 0.4,
  tests: [
    test(
      "",
      seen.wrong === null ? null : true,
      `found wrong: ${seen.wrong === null ? "" : FOUND_WRONG.words[seen.wrong]}`,
      "",
      16,
      1,
    ),
    test(
      "ask what was done before",
      seen.earlier,
      "somebody worked on it before",
      "never opened before",
      2.5,
      0.4,
    ),
  ],
});

const fluidTest = (seen: Seen): Test => {
  const fluid = seen.job.fluid?.body;
  const bad = fluid && (fluid.look === "milky" || fluid.look === "black" || fluid.smell === "burnt");
  return test(
    "look at the fluid and smell it",
    fluid ? Boolean(bad) : null,
    "the fluid is spoilt",
    "the fluid is good",
    3,
    0.6,
  );
};

/** Causes outside the failed thing itself. */
export const common = (seen: Seen): FailureCause[] => [
  {
    id: "line-pressure",
    name: "Low line pressure",
    weight: seen.of.kind === "pack" || seen.of.kind === "band" || seen.of.kind === "belt" ? 1 : 0.1,
    tests: [
      test(
        "line pressure as found",
        seen.pressureLow,
        "line pressure is outside",
        "line pressure is inside",
        7,
        0.15,
      ),
      test(
        "pump clearances",
        seen.outside(["pump clearance"]),
        "a pump clearance is outside",
        "the pump’s clearances are inside",
        3,
        0.5,
      ),
      test("look at the other packs", seen.othersBurnt ? true : null, "others are burnt too", "", 3, 1),
    ],
  },
  {
    id: "control",
    name: "Control: valve, solenoid or its wiring",
    weight: seen.of.kind === "hard part" ? 0.05 : seen.of.kind === "cassette" ? 0.3 : 0.8,
    tests: [
      test("read the codes", seen.electrical, "an electrical code stands", "no electrical code", 3, 0.6),
      test(
        "drop every valve through its bore",
        seen.anywhere(["valve", "valve body"], VALVE_WORN),
        "a valve or its bore is worn",
        "the valves fall",
        4,
        0.6,
      ),
      test(
        "solenoid resistance",
        seen.outside(["resistance"]),
        "a solenoid is outside",
        "the solenoids are inside",
        4,
        0.7,
      ),
    ],
  },
  ...seen.weak.map(({ id, name, found }): FailureCause => ({
    id: `weak-point:${id}`,
    name: `Known weak point: ${name}`,
    weight: 0.9,
    tests: [test(name, found, "answered: it was so", "answered: not here", 6, 0.1)],
  })),
];
