import { useEffect, useState } from "react";
import type { AppliedChain } from "~core/book";
import { spreadsOf, type FigureLeft, type Spread } from "~core/measure";
import { rangeText, roundedText, type LengthUnit } from "~core/quantity";

/**
 * What this shop’s own units before came with and left with, beside a figure: clearly no specification. Nothing where there were none, or the
 * server is away.
 */
export function HereBefore({ of, unit, chain }: { of: string; unit: LengthUnit; chain: AppliedChain }) {
  const [before, setBefore] = useState<readonly FigureLeft[]>([]);
  useEffect(() => {
    const gone = new AbortController();
    void fetch(`/books/${of}/left`, { signal: gone.signal, headers: { Accept: "application/json" } })
      .then(async (answer) => {
        if (answer.ok) setBefore((await answer.json()) as FigureLeft[]);
      })
      .catch(() => {});
    return () => gone.abort();
  }, [of]);
  const { found, built } = spreadsOf(before, chain);
  if (!found && !built) return null;
  return (
    <p className="quiet mt-2 text-sm" data-here-before={built?.count ?? 0}>
      Here before, no specification:{" "}
      {[spreadText("as built", built, unit), spreadText("as found", found, unit)].filter(Boolean).join("; ")}.
    </p>
  );
}

function spreadText(words: string, spread: Spread | null, unit: LengthUnit): string {
  if (!spread) return "";
  const { count, low, middle, high } = spread;
  const units = `${count} ${count === 1 ? "unit" : "units"}`;
  return low === high
    ? `${words} ${roundedText(middle, unit)} (${units})`
    : `${words} ${rangeText(low, high, unit)}, the middle ${roundedText(middle, unit)} (${units})`;
}
