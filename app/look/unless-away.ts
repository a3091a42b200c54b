import { isRouteErrorResponse } from "react-router";

/** Said where something could not be sent. */
export const AWAY = "The shop’s server is away; nothing was changed. Try again in a moment.";

/** What the server answers; where it does not answer at all, what is said instead. What it refuses is its own word. */
export async function unlessAway<T, A>(ask: () => Promise<T>, away: () => A): Promise<T | A> {
  try {
    return await ask();
  } catch (error) {
    if (error instanceof Response || isRouteErrorResponse(error)) throw error;
    return away();
  }
}
