/**
 * What a page asks for besides itself, as JSON: null when the server is away or refuses, so that the page stays as it is. Not a fetcher of
 * the router, which loads the asked route's script first and the whole page anew when that fails.
 */
export async function ask<T>(path: string): Promise<T | null> {
  try {
    const answer = await fetch(path, { headers: { accept: "application/json" } });
    return answer.ok ? ((await answer.json()) as T) : null;
  } catch {
    return null;
  }
}
