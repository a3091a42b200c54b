import { lazy, Suspense } from "react";
import { useWhen } from "~/door/when";
import { useScripted } from "~/look/use-scripted";
import { moneyText } from "~core/quantity";
import type { ShelfValue } from "~store/restock";

const ValueChart = lazy(() => import("./value-chart"));

/** What lies there in money, and what moves least. */
export function Value({ value: { cents, since, slow } }: { value: ShelfValue }) {
  const when = useWhen();
  const scripted = useScripted();
  return (
    <section className="plate px-4 py-3" aria-label="Value">
      <h2 className="text-lg font-bold">On the shelf lies {moneyText(cents)}</h2>
      <p className="quiet text-sm">by how long ago it was last wanted</p>
      {scripted && (
        <Suspense fallback={<div className="h-[190px]" />}>
          <ValueChart since={since} />
        </Suspense>
      )}
      {slow.length > 0 && (
        <details className="mt-1">
          <summary className="touch flex cursor-pointer items-center font-semibold underline underline-offset-4">
            What moves least
          </summary>
          <ul>
            {slow.map(({ part, name, pieces, cents: worth, moved }) => (
              <li
                key={part}
                className="border-base-300 flex items-baseline gap-3 border-t py-1 leading-tight"
                data-slow={part}
              >
                <span className="min-w-0 grow truncate">
                  {pieces} × {name} <span className="quiet text-sm">{part}</span>
                </span>
                <span className="quiet text-sm whitespace-nowrap">{moved ? when.day(moved) : "never"}</span>
                <span className="figure whitespace-nowrap">{moneyText(worth)}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}
