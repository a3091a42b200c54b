import { useEffect, useState } from "react";

/** The longest a browser’s timer can be set for. */
const MOST = 2_000_000_000;

/**
 * The moment, moved on when one of those to come has come: what stands in fluid becomes ready by itself, and nothing is worked out in between.
 *
 * @param coming moments in milliseconds.
 */
export function useMoment(coming: readonly number[]): number {
  const [now, setNow] = useState(() => Date.now());
  const next = Math.min(...coming.filter((moment) => moment > now));
  useEffect(() => {
    if (!Number.isFinite(next)) return;
    const wait = setTimeout(() => setNow(Date.now()), Math.min(MOST, Math.max(0, next - Date.now()) + 20));
    return () => clearTimeout(wait);
  }, [next]);
  return now;
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
