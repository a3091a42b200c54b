import { useEffect, useState } from "react";

/** The longest a browser’s timer can be set for. */
const MOST = 2_000_000_000;

/**
 * Calls once a moment has come.
 *
 * @param moment in milliseconds; without end where none comes.
 * @returns how to leave it.
 */
export function whenCome(moment: number, call: () => void): () => void {
  if (!Number.isFinite(moment)) return () => {};
  const wait = setTimeout(call, Math.min(MOST, Math.max(0, moment - Date.now()) + 20));
  return () => clearTimeout(wait);
}

/** The moment, a second at a time while something counts down. */
export function useSeconds(counts: boolean): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (!counts) return;
    const each = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(each);
  }, [counts]);
  return now;
}

/** `29:07`, or `1:05:00` from an hour on. */
export function clockWords(milliseconds: number): string {
  const seconds = Math.max(0, Math.ceil(milliseconds / 1000));
  const two = (n: number): string => String(n).padStart(2, "0");
  const [hours, minutes] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60];
  return hours > 0 ? `${hours}:${two(minutes)}:${two(seconds % 60)}` : `${minutes}:${two(seconds % 60)}`;
}
