import type { Gate, Procedure, ProcedureTurn } from "../book";
import type { Told } from "../fact";
import { compareMeasures, limitsText, parseMeasure, type Measure, type Quantity } from "../quantity";

/** One thing that must be so, and how it is. */
export interface Line {
  /** What it is about. */
  of: keyof Told;
  /** What is wanted, in words. */
  wanted: string;
  /** As it is; empty where nobody knows. */
  now: string;
  is: "met" | "unmet" | "unknown";
}

/**
 * What must be so, each held against what is known.
 *
 * @param gate of the turn or of the beginning.
 * @param window how warm the fluid must be besides; null where it need not.
 * @param told what the vehicle says, or whoever reads it off.
 */
export function linesOf(gate: Gate | undefined, window: Procedure["window"] | null, told: Told): Line[] {
  const { fluid, revs } = gate ?? {};
  return [
    ...(fluid ? [within("fluid", "temperature", fluid.from, fluid.to, told.fluid)] : []),
    ...(window ? [within("fluid", "temperature", window.from, window.to, told.fluid)] : []),
    ...(revs ? [within("revs", "speed", revs.from, revs.to, told.revs)] : []),
    ...(["engine", "lever", "brake", "pedal"] as const).flatMap((of): Line[] => {
      const wanted = gate?.[of];
      if (wanted === undefined) return [];
      const now = told[of] ?? "";
      return [
        { of, wanted: WORDS[of](wanted), now, is: now === "" ? "unknown" : now === wanted ? "met" : "unmet" },
      ];
    }),
  ];
}

const WORDS: Readonly<Record<"engine" | "lever" | "brake" | "pedal", (is: string) => string>> = {
  engine: (is) => `engine ${is}`,
  lever: (is) => `lever in ${is}`,
  brake: (is) => `brake ${is}`,
  pedal: (is) => `pedal ${is}`,
};

const figureOf = <Q extends Quantity>(text: string | undefined, quantity: Q): Measure<Q> | null => {
  const read = text === undefined ? null : parseMeasure(text, quantity);
  return read?.ok ? read.measure : null;
};

function within<Q extends Quantity>(
  of: "fluid" | "revs",
  quantity: Q,
  from: Measure<Q> | undefined,
  to: Measure<Q> | undefined,
  text: string | undefined,
): Line {
  const now = figureOf(text, quantity);
  const low = now !== null && from !== undefined && compareMeasures(now, from) < 0;
  const high = now !== null && to !== undefined && compareMeasures(now, to) > 0;
  return {
    of,
    wanted: `${of === "fluid" ? "fluid" : ""} ${limitsText(from, to)}`.trim(),
    now: now === null ? "" : (text ?? ""),
    is: now === null ? "unknown" : low || high ? "unmet" : "met",
  };
}

/** Whether the fluid is warmer than the window lets it be. */
export function isOver({ window }: Pick<Procedure, "window">, told: Told): boolean {
  const now = figureOf(told.fluid, "temperature");
  return window !== undefined && now !== null && compareMeasures(now, window.to) > 0;
}

/** Figures are read, never taken as said: what only the vehicle knows. */
export const FIGURES: ReadonlySet<keyof Told> = new Set<keyof Told>(["fluid", "revs"]);

/** Whether a turn is done within the window. */
export const inWindow = (turn: ProcedureTurn, { window }: Procedure): Procedure["window"] | null =>
  turn.window ? (window ?? null) : null;
