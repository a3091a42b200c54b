const HERE = "http://here.invalid";

/**
 * Where somebody is sent after signing in: a place of our own, and never on to another host. Compared as a browser reads it, which takes tabs and
 * line ends out of an address and a backslash for a slash.
 *
 * @param to what an address asks for.
 * @returns path, query and fragment; the first page where it is none of ours.
 */
export function within(to: string | null): string {
  if (!to?.startsWith("/") || !URL.canParse(to, HERE)) return "/";
  const { origin, pathname, search, hash } = new URL(to, HERE);
  // `/.//evil.example` has our origin, and a path that would be a host again.
  return origin === HERE && !pathname.startsWith("//") ? pathname + search + hash : "/";
}
