import type { Book } from "../book";
import { debrisQuestion, readSpeeds, type Told } from "../diagnose";
import type { Fact, FactKind, Phase } from "./fact";
import { lastOf, ofKind, standing, type FactOf } from "./last";

/** A picture with what was drawn on it. */
export interface Photo {
  id: string;
  fact: FactOf<"photo">;
  marks: FactOf<"photo-mark">[];
}

/** What was told, seen and read off before the unit is opened; where the same is said twice, the last word holds. */
export class Intake {
  constructor(private readonly live: readonly Fact[]) {}

  /** Answers to the diagnosis' questions that stand. */
  get answers(): FactOf<"answer">[] {
    return standing(this.all("answer"), ({ question, outcome }) => `${question} ${outcome}`);
  }
  get codes(): FactOf<"code">[] {
    return standing(this.all("code"), ({ code }) => code);
  }
  get speeds(): FactOf<"speeds">[] {
    return standing(this.all("speeds"), ({ range }) => range);
  }
  get fluid(): FactOf<"fluid"> | null {
    return this.all("fluid").at(-1) ?? null;
  }
  /** By place and kind; those seen not to be there among them. */
  get debris(): FactOf<"debris">[] {
    return lastOf(this.all("debris"), ({ where, what }) => `${where} ${what}`);
  }
  get conclusion(): FactOf<"conclusion"> | null {
    return this.all("conclusion").at(-1) ?? null;
  }
  /** Asked once for every figure of the book, and for each of its things: looked through once. */
  private lastFigures: Map<string, FactOf<"figure">> | null = null;

  /** The last word on a figure that is no series of readings. */
  figure(
    of: "chain" | "measurement",
    id: string,
    phase: Phase = "found",
    item?: string,
  ): FactOf<"figure"> | null {
    this.lastFigures ??= new Map(
      this.all("figure").map((fact) => {
        const { body } = fact;
        return [figureKey(body.of, body.id, body.phase, body.item), fact];
      }),
    );
    return this.lastFigures.get(figureKey(of, id, phase, item)) ?? null;
  }
  get readOuts(): FactOf<"read-out">[] {
    return lastOf(this.all("read-out"), ({ readOut }) => readOut);
  }
  get places(): FactOf<"place">[] {
    return lastOf(this.all("place"), ({ place }) => place);
  }

  get photos(): Photo[] {
    const marks = this.all("photo-mark");
    const gone = new Set(marks.flatMap(({ body }) => (body.there ? [] : (body.mark ?? []))));
    return lastOf(this.all("photo"), ({ photo }) => photo).map((fact) => ({
      id: fact.body.photo,
      fact,
      marks: marks.filter(({ id, body }) => body.photo === fact.body.photo && body.there && !gone.has(id)),
    }));
  }

  /** Everything said that a diagnosis can be made from. */
  told(unit: Book): Told[] {
    const answers = this.answers.map(({ body: { question, outcome, conditions } }): Told => ({
      ...{ question, outcome },
      ...(conditions.length > 0 ? { conditions } : {}),
    }));
    const sorts = new Set(this.codes.map(({ body }) => body.sort));
    const speeds = this.speeds.flatMap(({ body }) => readSpeeds(unit, body)?.told ?? []);
    return [
      ...answers,
      ...[...sorts].map((outcome): Told => ({ question: "scan", outcome })),
      ...speeds,
      ...this.fluidTold(),
      ...this.debrisTold(),
    ];
  }

  private fluidTold(): Told[] {
    const body = this.fluid?.body;
    if (!body || body.look === "none came out") return [];
    const outcome =
      body.look === "milky"
        ? "milky"
        : body.smell === "burnt"
          ? "burnt"
          : body.look === "red or clear"
            ? "clear"
            : "dark";
    return [{ question: "fluid", outcome }];
  }

  /** Debris of the unit's own; in a neighbour it speaks for the neighbour. A trace is what every unit has. */
  private debrisTold(): Told[] {
    const found = new Map<string, boolean>();
    for (const { body } of this.debris) {
      const question = body.where === "neighbour" ? "outside:neighbour" : debrisQuestion(body.what);
      if (!question) continue;
      const much = body.amount === "some" || body.amount === "much";
      found.set(question, much || (found.get(question) ?? false));
    }
    return [...found].map(([question, there]) => ({
      question,
      outcome: there ? "found" : question.startsWith("outside") ? "nothing" : "none",
    }));
  }

  private all<K extends FactKind>(kind: K): FactOf<K>[] {
    return ofKind(this.live, kind);
  }
}

const figureKey = (of: string, id: string, phase: Phase, item = ""): string =>
  [of, id, phase, item].join(" ");
