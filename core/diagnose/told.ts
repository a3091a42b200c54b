import type { Book } from "../book";
import type { Job } from "../fact";
import { debrisQuestion } from "./debris";
import type { Told } from "./diagnose";
import { readSpeeds } from "./speeds";

/** Everything said of a job that a diagnosis can be made from. */
export function toldBy(job: Job, unit: Book): Told[] {
  const answers = job.answers.map(({ body: { question, outcome, conditions } }): Told => ({
    question,
    outcome,
    ...(conditions.length > 0 ? { conditions } : {}),
  }));
  const sorts = new Set(job.codes.map(({ body }) => body.sort));
  const speeds = job.speeds.flatMap(({ body }) => readSpeeds(unit, body)?.told ?? []);
  return [
    ...answers,
    ...[...sorts].map((outcome): Told => ({ question: "scan", outcome })),
    ...speeds,
    ...fluidTold(job),
    ...debrisTold(job),
  ];
}

function fluidTold({ fluid }: Job): Told[] {
  const body = fluid?.body;
  if (!body || body.look === "none-came-out") return [];
  const outcome =
    body.look === "milky"
      ? "milky"
      : body.smell === "burnt"
        ? "burnt"
        : body.look === "red-or-clear"
          ? "clear"
          : "dark";
  return [{ question: "fluid", outcome }];
}

/** Debris of the unit's own; in a neighbour it speaks for the neighbour. A trace is what every unit has. */
function debrisTold({ debris }: Job): Told[] {
  const found = new Map<string, boolean>();
  for (const { body } of debris) {
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
