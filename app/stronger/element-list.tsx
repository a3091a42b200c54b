import { Check, Minus, TriangleAlert, X } from "lucide-react";
import { Link } from "react-router";
import type { ElementCapacity, Judged, Side } from "~core/capacity";
import { capital } from "~core/book";
import type { LengthUnit } from "~core/quantity";
import { marginText, torqueText } from "./figures";

/** How an element stands, by shape before colour. */
const JUDGED: Readonly<Record<Judged, { words: string; Icon: typeof Check; ink: string }>> = {
  enough: { words: "enough", Icon: Check, ink: "text-success" },
  thin: { words: "less over than wanted", Icon: TriangleAlert, ink: "text-warning" },
  slips: { words: "slips", Icon: X, ink: "text-error" },
  unknown: { words: "cannot be worked out", Icon: Minus, ink: "" },
  unloaded: { words: "carries nothing here", Icon: Minus, ink: "" },
};

/** What an element is called: as its pack is, or by its own name. */
export const nameOf = ({ element }: ElementCapacity, packs: ReadonlyMap<string, string>): string =>
  element.name ?? packs.get(element.id) ?? element.id;

/** Every element, what it holds beside what it must, as built and as planned. */
export function ElementList({
  elements,
  packs,
  at,
  to,
  unit,
}: {
  elements: readonly ElementCapacity[];
  packs: ReadonlyMap<string, string>;
  at: string;
  to: (element: string) => string;
  unit: LengthUnit;
}) {
  const most = Math.max(
    1,
    ...elements.flatMap(({ stock, planned, wanted }) =>
      [stock, planned].map((side) =>
        // One that holds far more than it must does not make the others small.
        Math.min(side?.margin ?? 0, 2.5 * wanted),
      ),
    ),
  );
  return (
    <section className="plate px-3 py-2" aria-label="Elements">
      <div className="stamp grid grid-cols-[minmax(0,5fr)_minmax(0,4fr)_8.5rem] gap-3 px-2 pb-1">
        <span>Element</span>
        <span>Holds over must</span>
        <span className="text-right">At its worst</span>
      </div>
      <ul>
        {elements.map((one) => {
          const { element, stock, planned, wanted, duty } = one;
          const side = planned ?? stock;
          const { Icon, ink, words } = JUDGED[side.judged];
          return (
            <li
              key={element.id}
              className="border-base-300 border-t"
              data-element={element.id}
              data-judged={side.judged}
            >
              <Link
                to={to(element.id)}
                replace
                preventScrollReset
                aria-current={element.id === at ? "true" : undefined}
                className={`grid min-h-[58px] grid-cols-[minmax(0,5fr)_minmax(0,4fr)_8.5rem] items-center gap-3 border-l-4 px-2 py-1 leading-tight ${element.id === at ? "border-primary bg-base-200" : "border-transparent"}`}
              >
                <span>
                  <b className="block text-lg leading-tight">{capital(nameOf(one, packs))}</b>
                  <span className="quiet text-sm">
                    {element.id.replaceAll("-", " ").toUpperCase()} ·{" "}
                    {duty === "shifting" ? "in motion" : "at a standstill"}
                  </span>
                </span>
                <Bars stock={stock} planned={planned} wanted={wanted} most={most} />
                <span className={`flex items-center justify-end gap-2 font-bold ${ink}`}>
                  <span className="text-right">
                    {side.margin === null ? (
                      <span className="text-sm font-normal">
                        {side.missing[0] ? `not known: ${side.missing[0]}` : words}
                      </span>
                    ) : (
                      <>
                        <span className="block text-xl" data-margin>
                          {marginText(side.margin)}
                        </span>
                        <span className="block text-sm font-normal">
                          {torqueText(side.torque ?? 0, unit)} in {side.worst?.range}
                        </span>
                      </>
                    )}
                  </span>
                  <Icon size={24} strokeWidth={3} aria-label={words} className="shrink-0" />
                </span>
              </Link>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const WIDTH = 300;

/** What it holds as a bar from nothing; the posts are what it must and what it should. */
function Bars({
  stock,
  planned,
  wanted,
  most,
}: {
  stock: Side;
  planned: Side | null;
  wanted: number;
  most: number;
}) {
  if (stock.margin === null && !planned?.margin) return <span />;
  const x = (margin: number): number => (Math.min(margin, most) / most) * (WIDTH - 4);
  return (
    <svg viewBox={`0 0 ${WIDTH} 34`} className="w-full" preserveAspectRatio="none" aria-hidden="true">
      <rect
        x="0"
        y={planned ? 4 : 9}
        width={x(stock.margin ?? 0)}
        height={planned ? 10 : 16}
        className="fill-ink"
        opacity={planned ? 0.35 : 0.75}
      />
      {planned && <rect x="0" y="17" width={x(planned.margin ?? 0)} height="13" className="fill-blue" />}
      <path d={`M${x(1)} 0v34`} className="stroke-ink" strokeWidth="2.5" />
      <path d={`M${x(wanted)} 0v34`} className="stroke-ink" strokeWidth="2" strokeDasharray="4 3" />
    </svg>
  );
}
