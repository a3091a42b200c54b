import { Link, useSearchParams } from "react-router";
import { UnitDrawing } from "~/look/unit-drawing";
import { layoutOf } from "~/look/unit-layout";
import { counts } from "~core/pack";
import { specWords, type Station } from "~core/book";
import { useBookView } from "./book";

/** The unit along its axis: touch a station, and see what sits there. */
export default function AxisPage() {
  const { applied } = useBookView();
  const [search, setSearch] = useSearchParams();
  const { stations } = applied.present;
  const asked = search.get("at");
  const current = stations.find(({ id }) => id === asked) ?? stations[0];
  const layout = layoutOf(stations, true);
  const here = current?.id;
  const query = (() => {
    const next = new URLSearchParams(search);
    next.delete("at");
    return next.size > 0 ? `?${next}` : "";
  })();
  const choose = (id: string): string => {
    const next = new URLSearchParams(search);
    next.set("at", id);
    return `?${next}`;
  };
  if (stations.length === 0)
    return (
      <p className="plate p-5 text-xl">
        Nothing is written down along its shaft yet. Its packs will stand here in their order, once there are
        any.
      </p>
    );
  return (
    <>
      <section className="plate px-3 pt-2 pb-3" aria-label="The unit along its axis">
        <svg viewBox={`0 0 ${layout.width} ${layout.height + 4}`} className="block w-full">
          <UnitDrawing stations={stations} layout={layout} current={here} named={() => true} />
          {stations.map((station) => {
            const half = layout.half(station.line ?? 0);
            return (
              <rect
                key={station.id}
                className="cursor-pointer fill-transparent"
                x={layout.x(station.from) - 2}
                width={layout.x(station.to) - layout.x(station.from) + 4}
                y={layout.middle(station.line ?? 0) - half - 26}
                height={2 * half + 28}
                onClick={() => setSearch(choose(station.id), { preventScrollReset: true })}
              />
            );
          })}
        </svg>
        <ul className="mt-2 flex flex-wrap gap-1.5">
          {stations.map(({ id, name }) => (
            <li key={id}>
              <Link
                to={choose(id)}
                preventScrollReset
                aria-current={id === here ? "true" : undefined}
                className={`touch flex items-center rounded border-2 px-3 ${id === here ? "border-primary bg-base-200 font-bold" : "border-base-300"}`}
              >
                {name}
              </Link>
            </li>
          ))}
        </ul>
      </section>
      {current && <AtStation station={current} query={query} />}
    </>
  );
}

/** What sits at one station: its pack, its figures, its weak points and parts. */
function AtStation({ station, query }: { station: Station; query: string }) {
  const { applied, unit, book } = useBookView();
  const { packs, weakPoints = [], parts } = applied.present;
  const here = station.id;
  const pack = packs.find((one) => one.station === here);
  const reached = new Set(applied.scoped.packs.map(({ element }) => element));
  const figures = applied.chains.filter(({ chain }) => chain.station === here);
  const weak = weakPoints.filter((one) => one.station === here);
  const its = parts.filter((part) => part.station === here && !part.of);
  return (
    <div className="mt-3 grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-3">
      <section className="plate p-5">
        <h2 className="mb-2 text-2xl font-bold first-letter:uppercase">{station.name}</h2>
        {pack && (
          <p className="mb-3 text-lg">
            <Link
              to={`packs${query}#pack-${pack.element}`}
              className="font-semibold underline underline-offset-4"
            >
              {pack.element.toUpperCase()}, {pack.name}
            </Link>
            : {counts(pack.stack).frictions} frictions, {counts(pack.stack).steels} steels
            {!reached.has(pack.element) && ", not reached at this depth"}
          </p>
        )}
        <table className="w-full text-lg">
          <tbody>
            {figures.map((figure) => (
              <tr key={figure.chain.id} className="border-base-300 border-t">
                <th scope="row" className="py-1.5 pr-4 text-left font-normal">
                  <Link
                    to={`chains${query}#chain-${figure.chain.id}`}
                    className="underline underline-offset-4"
                  >
                    {figure.chain.name}
                  </Link>
                  {!figure.inScope && <span className="quiet"> · not at this depth</span>}
                </th>
                <td className="figure text-right whitespace-nowrap">{specWords(figure, unit)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {figures.length === 0 && !pack && <p className="quiet">Nothing is measured here.</p>}
      </section>
      <section className="plate p-5">
        {weak.map(({ id, name, complaint, answers }) => (
          <div key={id} className="border-accent mb-3 border-l-4 pl-3">
            <h3 className="font-bold">{name}</h3>
            <p>
              Complaint: {complaint}. Answers: {answers.map((answer) => answer.name).join(" / ")}.
            </p>
          </div>
        ))}
        <h3 className="stamp quiet mb-1">Parts here</h3>
        <ul>
          {its.map(({ id, name, number }) => (
            <li key={id} className="flex justify-between gap-3 py-0.5">
              <Link to={`parts${query}#part-${id}`} className="underline underline-offset-4">
                {name}
              </Link>
              <span className="quiet">{number}</span>
            </li>
          ))}
        </ul>
        {its.length === 0 && <p className="quiet">None listed for {station.name}.</p>}
        {book.unit.summary && <p className="quiet mt-4">{book.unit.summary}</p>}
      </section>
    </div>
  );
}
