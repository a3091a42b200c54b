import type { Procedure, ProcedureTurn } from "../book";
import { millisecondsOf } from "../build";
import type { FactOf, Happened, Job, Told } from "../fact";
import { FIGURES, inWindow, isOver, linesOf, type Line } from "./lines";

/** Something that happened in a procedure. */
export interface Event {
  did: Happened;
  /** Of which turn; empty when all of it begins or stops. */
  turn: string;
  /** In milliseconds. */
  at: number;
  told: Told;
}

/** How a procedure stands at one moment. */
export interface Run {
  at: "not begun" | "going" | "stopped" | "missed" | "done";
  /** Which time it is run, from 1; 0 when nobody began. */
  run: number;
  /** The turn that is due; null where none is. */
  turn: ProcedureTurn | null;
  /** How many turns are behind it. */
  behind: number;
  /** What must be so for it, or to begin. */
  lines: Line[];
  /** Since when it is held so, and until when it must be, in milliseconds. */
  held: number | null;
  until: number | null;
  /** The window has passed: it can only be begun anew. */
  over: boolean;
  /** Whether what is due may be said now: that the turn is done, or that it begins. */
  may: boolean;
  /** Why it may not, short; empty when it may. */
  why: string;
  /** The events that counted of this run, in the order they happened. */
  counted: readonly Event[];
}

/** The events of a procedure, in the order said. */
export const eventsOf = ({ procedures }: Pick<Job, "procedures">, id: string): Event[] =>
  procedures.flatMap(({ body, at }: FactOf<"procedure">) =>
    body.procedure === id ? [{ did: body.did, turn: body.turn, at: Date.parse(at), told: body.senses }] : [],
  );

/** Where a run is, as its events lead it. */
interface Place {
  at: Run["at"];
  run: number;
  behind: number;
  held: number | null;
  counted: Event[];
}

/**
 * How a procedure stands. An event that could not happen where it was said – a turn not due, a gate not so, a time not over – counts for nothing: of two
 * tablets that say the same, one is heard.
 *
 * @param events in the order said.
 * @param told what is known at this moment.
 * @param now in milliseconds.
 */
export function runOf(procedure: Procedure, events: readonly Event[], told: Told, now: number): Run {
  const place: Place = { at: "not begun", run: 0, behind: 0, held: null, counted: [] };
  for (const event of events) go(procedure, place, event);
  const { at, run, behind, held, counted } = place;
  const turn = at === "going" ? (procedure.turns[behind] ?? null) : null;
  const over = at === "going" && passed(procedure, behind, told);
  const until = turn?.hold && held !== null ? held + millisecondsOf(turn.hold) : null;
  const lines = turn
    ? linesOf(turn.gate, inWindow(turn, procedure), told)
    : at === "going"
      ? []
      : linesOf(procedure.begin, null, told);
  const why =
    at === "done"
      ? ""
      : turn === null
        ? lacking(lines)
        : over
          ? "the window has passed"
          : lacking(lines) || waiting(turn, held, until, now);
  return { at, run, turn, behind, lines, held, until, over, may: why === "", why, counted };
}

function go(procedure: Procedure, place: Place, event: Event): void {
  const { turns, begin } = procedure;
  if (event.did === "begun") {
    if (place.at === "going" || lacking(linesOf(begin, null, event.told)) !== "") return;
    Object.assign(place, { at: "going", run: place.run + 1, behind: 0, held: null, counted: [event] });
    return;
  }
  if (place.at !== "going") return;
  const turn = turns[place.behind];
  const heard = (change: Partial<Place>): void => {
    Object.assign(place, change);
    place.counted.push(event);
  };
  if (event.did === "stopped") return heard({ at: "stopped", held: null });
  if (event.did === "missed") {
    if (passed(procedure, place.behind, event.told)) heard({ at: "missed", held: null });
    return;
  }
  if (!turn || event.turn !== turn.id) return;
  if (event.did === "broke") return heard({ held: null });
  const lines = linesOf(turn.gate, inWindow(turn, procedure), event.told);
  if (lacking(lines) !== "" || passed(procedure, place.behind, event.told)) return;
  if (event.did === "held") {
    if (turn.hold && place.held === null) heard({ held: event.at });
    return;
  }
  const until = turn.hold && place.held !== null ? place.held + millisecondsOf(turn.hold) : null;
  if (waiting(turn, place.held, until, event.at) !== "") return;
  const behind = place.behind + 1;
  heard({ behind, held: null, at: behind === turns.length ? "done" : "going" });
}

/** Whether the window has passed while something is still to be done within it. */
const passed = (procedure: Procedure, behind: number, told: Told): boolean =>
  procedure.turns.slice(behind).some((turn) => turn.window) && isOver(procedure, told);

/** What is not so, or is not known although it must be read; empty where nothing is. */
function lacking(lines: readonly Line[]): string {
  const unmet = lines.find(({ is }) => is === "unmet");
  if (unmet) return `${unmet.of} is ${unmet.now}, wanted: ${unmet.wanted}`;
  const unread = lines.find(({ of, is }) => is === "unknown" && FIGURES.has(of));
  return unread ? `read the ${unread.of}, wanted: ${unread.wanted}` : "";
}

function waiting(turn: ProcedureTurn, held: number | null, until: number | null, now: number): string {
  if (!turn.hold) return "";
  if (held === null || until === null) return "not held yet";
  return now < until ? "to be held a while yet" : "";
}
