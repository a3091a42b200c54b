import type { Vehicle } from "./use-vehicle";

/** Asks the vehicle on a job’s lift; null where none answers. */
export async function askVehicle(
  number: number,
  asked: Readonly<Record<string, unknown>>,
): Promise<Vehicle | null> {
  const answer = await fetch(`/jobs/${number}/vehicle`, {
    method: "POST",
    headers: { "Content-Type": "application/json", Accept: "application/json" },
    body: JSON.stringify(asked),
  }).catch(() => null);
  return answer?.ok ? ((await answer.json()) as Vehicle) : null;
}
