import type { Applied, Part } from "../book";
import { figures, type Job } from "../job";
import type { DecisionRule } from "../reading";
import type { Failed } from "./failed";

/** What speaks for a cause or against it, and by how much. */
export interface Evidence {
  words: string;
  /** How much likelier it makes the cause; below 1 it speaks against. */
  factor: number;
}

/** A candidate cause of a failure, with the evidence and what would settle it. */
export interface Candidate {
  id: string;
  name: string;
  /** Share of all candidates’ weight; they add up to one. */
  chance: number;
  evidence: Evidence[];
  /** Looked at or measured, each would confirm or clear it. */
  checks: string[];
}

/*
 * The model: each cause has a weight before anything is known, and every piece of evidence multiplies it. The figures are guesses, made up as
 * everything in the demo is; what matters is their order. A cause that nobody could name keeps a weight of its own, so nothing is ever certain.
 */

/** A question that evidence answers; `null` while nobody has looked. */
interface Test {
  check: string;
  /** The answer: true speaks for the cause. */
  known: boolean | null;
  yes: string;
  no: string;
  /** Factors when true and when false. */
  weigh: [number, number];
}

interface Cause {
  id: string;
  name: string;
  weight: number;
  tests: Test[];
}

/**
 * Candidate causes of one failure, likeliest first: from symptoms, findings, what was found wrong, air checks and figures together.
 *
 * @returns chances that add up to one; the last is that it is none of these.
 */
export function candidateCauses(job: Job, applied: Applied, rule: DecisionRule, of: Failed): Candidate[] {
  const seen = new Seen(job, applied, rule, of);
  const causes = [...CAUSES[of.kind](seen), ...common(seen)];
  const weighed = causes.map(({ id, name, weight, tests }) => {
    const known = tests.filter((test) => test.known !== null);
    const evidence = known.map(({ known: is, yes, no, weigh }): Evidence => ({
      words: is ? yes : no,
      factor: is ? weigh[0] : weigh[1],
    }));
    const checks = tests.filter((test) => test.known === null).map(({ check }) => check);
    return {
      ...{ id, name, evidence, checks: [...new Set(checks)].filter(Boolean) },
      chance: evidence.reduce((all, { factor }) => all * factor, weight),
    };
  });
  const all = [...weighed, { id: "unknown", name: "None of these", chance: 0.4, evidence: [], checks: [] }];
  const sum = all.reduce((total, { chance }) => total + chance, 0);
  return all.map((one) => ({ ...one, chance: one.chance / sum })).sort((a, b) => b.chance - a.chance);
}

/** What is known about one failure, asked in the bench's terms. */
class Seen {
  constructor(
    readonly job: Job,
    private readonly applied: Applied,
    private readonly rule: DecisionRule,
    readonly of: Failed,
  ) {}

  /** Whether a kind of part of this failure shows a kind of wear; null while none of them was looked at. */
  worn(kinds: readonly string[], wear: RegExp, among: readonly Part[] = this.of.parts): boolean | null {
    const parts = among.filter(({ kind }) => kinds.includes(kind ?? ""));
    if (parts.length === 0) return null;
    const ids = new Set(parts.map(({ id }) => id));
    const { findings, good } = this.job.work;
    const found = findings.some(
      ({ body }) => ids.has(body.part) && wear.test(body.wear) && body.severity !== "trace" && body.sure,
    );
    if (found) return true;
    return parts.some(({ id }) => good.has(id) || findings.some(({ body }) => body.part === id && body.sure))
      ? false
      : null;
  }
  /** Whether it has parts of such kinds at all. */
  has = (...kinds: string[]): boolean => this.of.parts.some(({ kind }) => kinds.includes(kind ?? ""));
  /** Any part of the unit, not only of this failure. */
  anywhere = (kinds: readonly string[], wear: RegExp): boolean | null =>
    this.worn(kinds, wear, this.applied.work.parts);

  /** Whether a figure of this kind is outside; null while none was taken. */
  outside(kinds: readonly string[], parts?: ReadonlySet<string>): boolean | null {
    const taken = figures(this.job, this.applied, this.rule, "found").flatMap((one): boolean[] => {
      if (one.kind === "chain") {
        const { chain } = one.applied;
        if (!kinds.includes(chain.kind) || one.readings.length === 0) return [];
        if (parts && !(chain.parts ?? []).some((part) => parts.has(part))) return [];
        return one.assessment.verdict.kind === "outside"
          ? [true]
          : one.assessment.verdict.kind === "inside"
            ? [false]
            : [];
      }
      const { kind, element, part } = one.measurement;
      if (!kinds.includes(kind) || one.verdict === null || one.verdict === "not stated") return [];
      if (parts && element !== this.of.of && (part === undefined || !parts.has(part))) return [];
      return [one.verdict === "outside"];
    });
    return taken.length === 0 ? null : taken.includes(true);
  }
  get ids(): ReadonlySet<string> {
    return new Set(this.of.parts.map(({ id }) => id));
  }
  /** Every part of a kind, whose figures are asked about. */
  ofKind(kind: string): ReadonlySet<string> {
    return new Set(this.applied.work.parts.filter((part) => part.kind === kind).map(({ id }) => id));
  }
  /** The line pressure itself, not that of one element. */
  get pressureLow(): boolean | null {
    return this.outside(["pressure"]);
  }
  /** The clearance of this pack as it was found: tight or loose. */
  get clearance(): "tight" | "loose" | "inside" | null {
    const pack = this.applied.packs.find((one) => one.pack.element === this.of.of);
    const readings = pack ? (this.job.chains.get(pack.chain.id)?.readings ?? []) : [];
    const found = readings.filter(({ fact, out }) => fact.body.phase === "found" && out === null);
    const values = found.flatMap(({ fact: { body } }) =>
      body.reading.kind === "bracket" ? [] : [body.reading.value],
    );
    if (!pack || values.length === 0) return null;
    const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
    return mean < pack.spec.min ? "tight" : mean > pack.spec.max ? "loose" : "inside";
  }
  /** Found wrong on its parts: counts, ways, parts from elsewhere. */
  get wrong(): string | null {
    const { ids } = this;
    const found = this.job.work.wrongs.find(({ body }) => ids.has(body.of));
    return found ? found.body.what : null;
  }
  /** What was told of the ranges that use it: true when one of these outcomes was. */
  told(outcomes: readonly string[]): boolean | null {
    const ranges = this.applied.unit.ranges.filter(({ applied }) => applied.includes(this.of.of));
    const ids = new Set(ranges.flatMap(({ id }) => [`range:${id}`, `manual:${id}`]));
    const answers = this.job.intake.answers.filter(({ body }) => ids.has(body.question));
    return answers.length === 0 ? null : answers.some(({ body }) => outcomes.includes(body.outcome));
  }
  get othersBurnt(): boolean {
    const plates = this.job.work.findings.filter(
      ({ body }) =>
        body.wear === "burnt" && body.sure && body.severity !== "trace" && !this.ids.has(body.part),
    );
    return plates.length > 0;
  }
  get electrical(): boolean | null {
    const { codes } = this.job.intake;
    return codes.length === 0
      ? null
      : codes.some(({ body }) => body.sort === "electrical code" && body.related !== "no");
  }
  get use(): boolean | null {
    const use = this.job.booking?.body.use;
    return use ? /tow|trailer|taxi|plough|race|launch|hill|overload/i.test(use) : null;
  }
  get earlier(): boolean | null {
    const text = this.job.booking?.body.earlier;
    return text ? !/^(no|none|never)/i.test(text) : null;
  }
  get name(): string {
    return this.of.name;
  }
  /** Weak points of this version that sit at its station or name it. */
  get weak(): { name: string; found: boolean | null }[] {
    const stations = new Set(this.of.parts.flatMap(({ station }) => station ?? []));
    const element = new RegExp(`\\b${this.of.of}\\b`, "i");
    return (this.applied.work.weakPoints ?? [])
      .filter(
        ({ station, complaint, name }) =>
          (station && stations.has(station)) || element.test(complaint) || element.test(name),
      )
      .map(({ id, name }) => {
        const said = this.job.work.weakPoints.get(id)?.body;
        return {
          name,
          found: said ? !/good|not (found|present)|in order/i.test(`${said.answer} ${said.note}`) : null,
        };
      });
  }
}

const test = (
  check: string,
  known: boolean | null,
  yes: string,
  no: string,
  ...weigh: [number, number]
): Test => ({
  ...{ check, known, yes, no, weigh },
});

const CAUSES: Readonly<Record<Failed["kind"], (seen: Seen) => Cause[]>> = {
  pack: (seen) => [
    {
      ...{ id: "seal-leak", name: "Leak past a piston seal", weight: 2 },
      tests: [
        test(
          "look at the piston’s seals",
          seen.worn(["piston", "seal"], /lip|hard|flat|cut/),
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
      ...{
        id: "ring-leak",
        name: "Leak at a sealing ring or the bore it runs in",
        weight: seen.has("sealing ring", "drum") ? 1.4 : 0.7,
      },
      tests: [
        test(
          "look at the sealing rings",
          seen.worn(
            ["sealing ring", "drum", "support", "shaft"],
            /rounded|run off|bore grooved|stepped|journal/,
          ),
          "a ring or its bore is worn",
          "rings and bores are good",
          6,
          0.35,
        ),
        test(
          "side clearance of the rings",
          seen.outside(["side clearance"], seen.ids),
          "a ring has too much room",
          "the rings fit",
          4,
          0.5,
        ),
      ],
    },
    {
      ...{
        id: "bushing",
        name: "Worn bushing lets a sealing ring run off",
        weight: seen.has("bushing") ? 0.8 : 0.1,
      },
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
          seen.worn(["bushing"], /copper|spun|lost/),
          "its bushing is worn",
          "its bushing is good",
          3,
          0.5,
        ),
      ],
    },
    {
      ...{ id: "piston", name: "Piston cracked or its bond torn", weight: 0.7 },
      tests: [
        test(
          "look at the piston",
          seen.worn(["piston"], /crack|bond|porous|pitted/),
          "the piston is cracked or torn",
          "the piston is whole",
          12,
          0.15,
        ),
      ],
    },
    {
      ...{ id: "bleed", name: "Plugged bleed: it never let go", weight: 0.4 },
      tests: [
        test(
          "look at the bleed",
          seen.worn(["piston", "drum"], /bleed/),
          "the bleed is plugged",
          "the bleed is open",
          14,
          0.4,
        ),
        test(
          "tell whether it creeps or binds",
          seen.told(["binds", "stuck in it", "harsh"]),
          "binding told",
          "no binding told",
          2,
          0.8,
        ),
      ],
    },
    {
      ...{ id: "clearance", name: "Wrong clearance", weight: 0.7 },
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
      ...{ id: "servo", name: "Servo leaks or its travel is wrong", weight: 2 },
      tests: [
        test(
          "look at the servo",
          seen.anywhere(["servo"], /.*/),
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
      ...{ id: "drum", name: "Drum’s band surface grooved", weight: 0.8 },
      tests: [
        test(
          "look at the drum",
          seen.anywhere(["drum"], /grooved|scored/),
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
      ...{ id: "lubrication", name: "Lubrication lost", weight: 1 },
      tests: [
        test(
          "look for blued neighbours",
          seen.anywhere(["thrust bearing", "bushing", "carrier"], /blu|copper|pitted/),
          "its neighbours ran dry too",
          "its neighbours are good",
          4,
          0.5,
        ),
      ],
    },
    {
      ...{ id: "shock", name: "Shock: stuck and spun, or hard use", weight: 1 },
      tests: [test("ask how it is driven", seen.use, "hard use told", "ordinary use", 3, 0.7)],
    },
    {
      ...{ id: "springs", name: "Springs or rollers weak with age", weight: 1 },
      tests: [
        test(
          "look at its springs",
          seen.worn(["one-way clutch"], /spring/),
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
      ...{ id: "release", name: "The clutch drags: it does not let go", weight: 1.6 },
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
          seen.anywhere(["bearing"], /rough|pitted|balls/),
          "a shaft bearing is rough",
          "the shaft bearings are good",
          2,
          0.7,
        ),
      ],
    },
    {
      ...{ id: "fork", name: "Fork worn or bent: it does not push straight", weight: 1.2 },
      tests: [
        test(
          "look at the forks",
          seen.anywhere(["fork"], /pad|bent|ball|bush/),
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
    { ...{ id: "fluid", name: "Wrong or old fluid", weight: 0.6 }, tests: [fluidTest(seen)] },
    {
      ...{ id: "abuse", name: "Forced in, or many kilometres", weight: 0.7 },
      tests: [test("ask how it is driven", seen.use, "hard use told", "ordinary use", 3, 0.6)],
    },
    wrongParts(seen),
  ],
  belt: (seen) => [
    {
      ...{ id: "sheave", name: "Metal between belt and sheave", weight: 1.2 },
      tests: [
        test(
          "look at the sheave faces",
          seen.anywhere(["pulley"], /scored|polished|band|runout/),
          "a face is scored",
          "the faces are even",
          5,
          0.4,
        ),
        test(
          "look at the bearings",
          seen.anywhere(["bearing", "taper bearing"], /pitted|rough|seat/),
          "a bearing sheds metal",
          "the bearings are good",
          3,
          0.6,
        ),
      ],
    },
    {
      ...{ id: "alignment", name: "Pulleys out of line", weight: 0.8 },
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
    { ...{ id: "fluid", name: "Wrong or old fluid", weight: 0.8 }, tests: [fluidTest(seen)] },
    {
      ...{ id: "abuse", name: "Overload", weight: 0.7 },
      tests: [test("ask how it is driven", seen.use, "hard use told", "ordinary use", 3, 0.6)],
    },
  ],
  cassette: (seen) => [
    {
      ...{ id: "shaft-seal", name: "Shaft seal leaks onto the disc", weight: 1.2 },
      tests: [
        test(
          "look for oil on the discs",
          seen.worn(["cassette"], /oil/),
          "oil on a disc",
          "the discs are dry",
          8,
          0.2,
        ),
        test(
          "look at the shaft seals",
          seen.anywhere(["seal"], /lip|hard/),
          "a shaft seal is hard",
          "the seals are good",
          3,
          0.6,
        ),
      ],
    },
    {
      ...{ id: "rest", name: "Engagement bearing’s rest position wrong", weight: 1 },
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
      ...{ id: "age", name: "Worn by its kilometres", weight: 1.2 },
      tests: [
        test(
          "look at the linings",
          seen.worn(["cassette"], /discs worn|lining/),
          "linings worn evenly",
          "linings are thick",
          4,
          0.3,
        ),
      ],
    },
    {
      ...{ id: "abuse", name: "Held on the clutch, towing", weight: 0.8 },
      tests: [test("ask how it is driven", seen.use, "hard use told", "ordinary use", 4, 0.6)],
    },
    wrongParts(seen),
  ],
};

const wrongParts = (seen: Seen): Cause => ({
  ...{ id: "wrong-parts", name: "Wrong parts, or built wrong before", weight: 0.4 },
  tests: [
    test("", seen.wrong === null ? null : true, `found wrong: ${seen.wrong}`, "", 16, 1),
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
  const fluid = seen.job.intake.fluid?.body;
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
const common = (seen: Seen): Cause[] => [
  {
    ...{
      id: "line-pressure",
      name: "Low line pressure",
      weight: seen.of.kind === "pack" || seen.of.kind === "band" || seen.of.kind === "belt" ? 1 : 0.1,
    },
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
    ...{
      id: "control",
      name: "Control: valve, solenoid or its wiring",
      weight: seen.of.kind === "cassette" ? 0.3 : 0.8,
    },
    tests: [
      test("read the codes", seen.electrical, "an electrical code stands", "no electrical code", 3, 0.6),
      test(
        "drop every valve through its bore",
        seen.anywhere(["valve", "valve body"], /stick|bore|drift|crack/),
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
  ...seen.weak.map(({ name, found }, i): Cause => ({
    ...{ id: `weak-point-${i}`, name: `Known weak point: ${name}`, weight: 0.9 },
    tests: [test(name, found, "answered: it was so", "answered: not here", 6, 0.1)],
  })),
];
