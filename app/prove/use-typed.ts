import { useState } from "react";
import type { Told } from "~core/fact";
import { parseMeasure, type Quantity } from "~core/quantity";

/** What is read off by hand: as it was typed, what it says, and what is wrong with it. */
export interface Typed {
  raw: Readonly<Record<"fluid" | "revs", string>>;
  told: Told;
  problems: Readonly<Record<"fluid" | "revs", string>>;
  type: (of: "fluid" | "revs", text: string) => void;
  clear: () => void;
}

const NOTHING = { fluid: "", revs: "" } as const;

/**
 * Figures typed where no vehicle tells them. They serve for the next thing said: a minute later they are so no more.
 *
 * @param unit a bare temperature is taken in.
 */
export function useTyped(unit: string): Typed {
  const [raw, setRaw] = useState<Typed["raw"]>(NOTHING);
  const read = (text: string, quantity: Quantity, bare: string): { said: string; problem: string } => {
    if (text.trim() === "") return { said: "", problem: "" };
    const found = parseMeasure(text, quantity, bare);
    return found.ok
      ? { said: `${found.measure.figure} ${found.measure.unit}`, problem: "" }
      : { said: "", problem: `${found.problem}: ${found.remedy}.` };
  };
  const fluid = read(raw.fluid, "temperature", unit);
  const revs = read(raw.revs, "speed", "rpm");
  return {
    raw,
    told: { ...(fluid.said ? { fluid: fluid.said } : {}), ...(revs.said ? { revs: revs.said } : {}) },
    problems: { fluid: fluid.problem, revs: revs.problem },
    type: (of, text) => setRaw({ ...raw, [of]: text }),
    clear: () => setRaw(NOTHING),
  };
}
