import { useEffect, useState } from "react";
import type { Here, Side } from "~store/here";

const EVERY_MS = 2_000;
/** Not heard of for so long, somebody is gone: two calls may get lost. */
export const GONE_MS = 7_000;

/** Somebody at the other end of a procedure. */
export interface Other {
  person: string;
  /** When they were last heard of, in milliseconds. */
  heard: number;
  /** Not heard of any more. */
  gone: boolean;
}

/**
 * Says that this tablet is at a procedure, and tells who is at its other end.
 *
 * @returns null where nobody was there yet; and whether this tablet itself reaches the server.
 */
export function useHere(
  number: number,
  procedure: string,
  side: Side | null,
): { other: Other | null; away: boolean } {
  const [here, setHere] = useState<{ list: readonly Here[]; at: number }>({ list: [], at: 0 });
  const [away, setAway] = useState(false);
  useEffect(() => {
    if (!side) return;
    const call = async (): Promise<void> => {
      const answer = await fetch(`/jobs/${number}/here`, {
        method: "POST",
        headers: { "Content-Type": "application/json", Accept: "application/json" },
        body: JSON.stringify({ procedure, side }),
        // A server that hangs is away, too.
        signal: AbortSignal.timeout(GONE_MS / 2),
      }).catch(() => null);
      setAway(!answer?.ok);
      if (answer?.ok) setHere({ list: (await answer.json()) as Here[], at: Date.now() });
    };
    void call();
    const each = setInterval(() => void call(), EVERY_MS);
    return () => clearInterval(each);
  }, [number, procedure, side]);
  const found =
    side === "both" ? undefined : here.list.find((one) => one.side !== side && one.side !== "both");
  const other = found && {
    person: found.person,
    heard: here.at - found.ago,
    gone: found.ago > GONE_MS,
  };
  return { other: other ?? null, away };
}
