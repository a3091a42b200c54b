import type { Vehicle } from "./use-vehicle";

/** An answer that takes longer is none. */
const HANGS_MS = 5_000;

/** Asks the vehicle on a job’s lift; null where none answers. */
export async function askVehicle(
  number: number,
  asked: Readonly<Record<string, unknown>>,
): Promise<Vehicle | null> {
  const answer = await fetch(`/jobs/${number}/vehicle`, {
    method: "POST",
    headers: { "Content-Type": "application/json", Accept: "application/json" },
    body: JSON.stringify(asked),
    signal: AbortSignal.timeout(HANGS_MS),
  }).catch(() => null);
  return answer?.ok ? ((await answer.json()) as Vehicle) : null;
}
