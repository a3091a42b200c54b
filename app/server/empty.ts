/** The floor that `npm run bench` measures other routes against: a signed-in request that does nothing. */
export const loader = (): Response => new Response("", { headers: { "Content-Type": "text/plain" } });
