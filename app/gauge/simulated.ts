import { nm, type Nm } from "~core/quantity";
import type { Source, Told, Wanted } from "./source";

/** The simulated bench’s gauges: asked for a reading, it answers as a hand would have read it. */
export const simulatedSource = (bench: string): Source => ({
  name: "simulated gauge",
  open: () => Promise.resolve(() => Promise.resolve()),
  ask: async (wanted: Wanted): Promise<Told> => {
    const response = await fetch("/gauge/take", {
      method: "POST",
      headers: { "Content-Type": "application/json", Accept: "application/json" },
      body: JSON.stringify({ bench, ...wanted }),
    });
    const answer = (await response.json()) as { value: Nm } | { passes: Nm | null; refuses: Nm | null };
    if (!response.ok) throw new Error("The simulated gauge does not answer; type the figure.");
    return "value" in answer ? { value: nm(answer.value) } : answer;
  },
});
