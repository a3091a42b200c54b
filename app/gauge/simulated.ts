import { nm, type Nm } from "~core/quantity";
import { askBench } from "./bench";
import type { Source, Told, Wanted } from "./source";

/** The simulated bench’s gauges: asked for a reading, it answers as a hand would have read it. */
export const simulatedSource = (bench: string): Source => ({
  name: "simulated gauge",
  open: () => Promise.resolve(() => Promise.resolve()),
  ask: async (wanted: Wanted): Promise<Told> => {
    const answer = await askBench<{ value: Nm } | { passes: Nm | null; refuses: Nm | null }>("take", {
      bench,
      ...wanted,
    });
    if (!answer) throw new Error("The simulated gauge does not answer; type the figure.");
    return "value" in answer ? { value: nm(answer.value) } : answer;
  },
});
