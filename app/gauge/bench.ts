/** Asks one of the simulated bench’s devices; null where it does not answer. */
export async function askBench<T>(device: "take" | "pull" | "air", asked: object): Promise<T | null> {
  const answer = await fetch(`/gauge/${device}`, {
    method: "POST",
    headers: { "Content-Type": "application/json", Accept: "application/json" },
    body: JSON.stringify(asked),
  }).catch(() => null);
  return answer?.ok ? ((await answer.json()) as T) : null;
}
