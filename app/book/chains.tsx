import { HereBefore } from "~/look/here-before";
import { useWhen } from "~/door/when";
import { useState } from "react";
import { useAnchor } from "~/look/use-scripted";
import {
  capital,
  selectiveWord,
  shownIn,
  specWords,
  takenBy,
  type AppliedChain,
  type Book,
  type SeatLink,
  limitWords,
} from "~core/book";
import { thicknessOf } from "~core/pack";
import {
  lengthText,
  nearestNm,
  plusMinusText,
  signedText,
  measureText,
  nm,
  type LengthUnit,
  type Nm,
} from "~core/quantity";
import { HouseForm } from "./house-form";
import { Loop, type DrawnLink } from "~/look/loop";
import { useBookView } from "./book";

/** Everything that is measured on this version, and each chain's loop one touch away. */
export default function ChainsPage() {
  const { applied, unit, depths } = useBookView();
  const anchor = useAnchor();
  const asked = applied.chains.find(({ chain }) => anchor === `chain-${chain.id}`);
  const [open, setOpen] = useState<string | null>(null);
  const shown = open ?? asked?.chain.id ?? applied.chains[0]?.chain.id;
  const current = applied.chains.find(({ chain }) => chain.id === shown);
  const kinds = [...new Set(applied.chains.map(({ chain }) => chain.kind))];
  return (
    <div className="grid grid-cols-[minmax(0,5fr)_minmax(0,6fr)] items-start gap-3">
      <section className="plate p-4">
        {kinds.map((kind) => (
          <div key={kind} className="mb-3">
            <h2 className="stamp quiet">{kind}</h2>
            <ul>
              {applied.chains
                .filter(({ chain }) => chain.kind === kind)
                .map((figure) => (
                  <li key={figure.chain.id} id={`chain-${figure.chain.id}`}>
                    <button
                      type="button"
                      aria-pressed={figure.chain.id === shown}
                      className={`touch border-base-300 flex w-full items-center gap-3 border-t px-2 text-left ${figure.chain.id === shown ? "bg-base-200 border-l-primary border-l-4" : ""}`}
                      onClick={() => setOpen(figure.chain.id)}
                    >
                      <span className={`grow ${figure.inScope ? "" : "quiet"}`}>
                        {figure.chain.name}
                        {!figure.inScope && (
                          <span className="block text-sm">not at depth {depths.join(" + ")}</span>
                        )}
                      </span>
                      <span className="figure whitespace-nowrap">
                        {limitWords(figure.spec, unit)}
                        {figure.house && <span className="block text-right text-sm font-normal">house</span>}
                      </span>
                    </button>
                  </li>
                ))}
            </ul>
          </div>
        ))}
        {applied.unstated.length > 0 && (
          <p className="font-semibold">
            No spec for this version: {applied.unstated.map(({ name }) => name).join(", ")}.
          </p>
        )}
      </section>
      <div className="sticky top-3">{current && <ChainPlate key={current.chain.id} figure={current} />}</div>
      <div className="col-span-2">
        <SeriesTables />
      </div>
    </div>
  );
}

function ChainPlate({ figure }: { figure: AppliedChain }) {
  const { day } = useWhen();
  const { applied, unit, may, book } = useBookView();
  const { chain, spec, allowances, house } = figure;
  const { read } = chain;
  const relations = (applied.present.orders ?? []).filter(([a, , b]) => a === chain.id || b === chain.id);
  const group = book.fasteners?.find(({ id }) => id === read.bolts?.group);
  const nameOf = (id: string): string => applied.present.chains.find((one) => one.id === id)?.name ?? id;
  return (
    <section className="plate p-5" aria-label={chain.name}>
      <h2 className="text-2xl font-bold">{chain.name}</h2>
      <p className="mb-2 text-2xl">
        <span className="figure">{specWords(figure, unit)}</span>
      </p>
      <HereBefore
        of={book.unit.id}
        unit={unit}
        chain={applied.packs.find((pack) => pack.chain.id === chain.id) ?? figure}
      />
      <Loop chain={chain} links={linksOf(applied.present, figure)} unit={unit} />
      <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
        {chain.kind === "pack clearance" && (
          <ChainLine name="Stated">
            {spec.state.soak}
            {spec.state.facings && `, facings ${spec.state.facings}`}
            {spec.state.wave && `, wave ${spec.state.wave}`}
          </ChainLine>
        )}
        {allowances.soaking && (
          <ChainLine name="Soaking">
            {signedText(allowances.soaking.amount, unit)} ± {lengthText(allowances.soaking.within, unit)}
          </ChainLine>
        )}
        {allowances.bedding && (
          <ChainLine name="Bedding-in">
            {signedText(allowances.bedding.amount, unit)} ± {lengthText(allowances.bedding.within, unit)}
          </ChainLine>
        )}
        <ChainLine name="Read with">
          {read.with.join(", ")}
          {read.air && `, air ${shownIn(read.air, unit)}`}
          {read.gasket && `, gasket ${read.gasket}`}
          {read.bolts &&
            `, ${read.bolts.count} ${group?.name ?? "bolts"} at ${shownIn(read.bolts.torque, unit)}`}
        </ChainLine>
        {read.places && <ChainLine name="Places">{read.places.join(", ")}</ChainLine>}
        {read.points && <ChainLine name="Readings">{read.points}</ChainLine>}
        {read.how && <ChainLine name="How">{read.how}</ChainLine>}
        {chain.clocking && <ChainLine name="Clocking">{chain.clocking}</ChainLine>}
        {relations.map(([a, , b]) => (
          <ChainLine key={a + b} name="Relation">
            {nameOf(a)} ≤ {nameOf(b)}
          </ChainLine>
        ))}
        <ChainLine name="Source">
          {figure.book.source ?? book.unit.source}
          {figure.book.checked && `, checked ${figure.book.checked}`}
        </ChainLine>
      </dl>
      {house && (
        <p className="border-accent mt-3 border-l-4 pl-3">
          House value by {house.by}, {day(house.at)}: {house.reason}. The book says{" "}
          {limitWords(figure.book, unit)}.
        </p>
      )}
      {may && (
        <HouseForm
          of="chain"
          id={chain.id}
          house={house}
          fields={[
            { name: "min", label: "Min", book: limitText(figure.book.min, unit), value: house?.min },
            { name: "max", label: "Max", book: limitText(figure.book.max, unit), value: house?.max },
          ]}
        />
      )}
    </section>
  );
}

function ChainLine({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <>
      <dt className="quiet">{name}</dt>
      <dd>{children}</dd>
    </>
  );
}

const limitText = (limit: Nm | undefined, unit: LengthUnit): string =>
  limit === undefined ? "none known" : lengthText(limit, unit);

/** A chain's links with their sizes: a stack adds up its plates, a series shows its middle one. */
function linksOf(unit: Book, { chain, seats, spec }: AppliedChain): DrawnLink[] {
  const links = chain.links.map(([sign, kind, ref, nominal]): DrawnLink => {
    const pack = unit.packs.find(({ element }) => element === ref);
    if (kind === "stack" && pack)
      return {
        sign,
        words: `plates of ${ref.toUpperCase()}`,
        size: thicknessOf(pack.stack),
        selective: false,
      };
    const seat = seats.find(({ id }) => id === (kind === "series" ? chain.id : ref));
    if ((kind === "series" || kind === "seat") && seat) {
      const words = kind === "series" ? (unit.series.find(({ id }) => id === ref)?.name ?? ref) : seat.name;
      return { sign, words, size: middleOf(seat), selective: true };
    }
    const part = unit.parts.find(({ id }) => id === ref)?.name;
    return { sign, words: part ?? ref, size: nominal ?? null, selective: false };
  });
  const unknown = links.filter(({ size }) => size === null);
  if (unknown.length !== 1 || spec.min === undefined || spec.max === undefined) return links;
  const rest = links.reduce((sum, { sign, size }) => sum + (sign === "+" ? 1 : -1) * (size ?? 0), 0);
  const middle = (spec.min + spec.max) / 2;
  return links.map((link) =>
    link.size === null
      ? { ...link, size: nearestNm((link.sign === "+" ? 1 : -1) * (middle - rest)), implied: true }
      : link,
  );
}

const middleOf = ({ sizes }: Pick<SeatLink, "sizes">) => sizes[Math.floor(sizes.length / 2)]?.size ?? null;

/** Where pieces are chosen that move several figures, or that are made on the spot. */
function SeatList() {
  const { applied, unit } = useBookView();
  const { seats = [], chains, series } = applied.present;
  if (seats.length === 0) return null;
  return (
    <ul className="mb-4 grid grid-cols-2 gap-x-6" aria-label="Seats">
      {seats.map((seat) => {
        const moves = chains.filter(({ links }) =>
          links.some(([, kind, ref]) => kind === "seat" && ref === seat.id),
        );
        const taken = takenBy({ series }, seat);
        return (
          <li key={seat.id} id={`seat-${seat.id}`} className="border-base-300 border-t py-1 leading-tight">
            <b>{capital(seat.name)}</b> <span className="quiet">{taken ? selectiveWord(taken) : ""}</span>
            <span className="block text-sm">
              moves {moves.map(({ name }) => name).join(" and ")}
              {seat.screw &&
                `; a turn is ${lengthText(nm(Math.round(seat.screw.pitch * seat.screw.lever)), unit)} of travel, snug ${measureText(seat.screw.snug)}`}
              {seat.cut && `; ${lengthText(seat.cut.most, unit)} may come off`}
              {seat.beside && `; not ${seat.beside}`}
            </span>
          </li>
        );
      })}
    </ul>
  );
}

function SeriesTables() {
  const { applied, unit } = useBookView();
  return (
    <section className="plate p-5">
      <h2 className="mb-2 text-xl font-bold">Selective series</h2>
      <SeatList />
      <div className="grid grid-cols-4 gap-x-6 gap-y-4">
        {applied.present.series.map(({ id, name, kind, tolerance, sizes }) => (
          <table key={id} id={`series-${id}`} className="self-start target:outline-3">
            <caption className="text-left">
              <b>{name}</b>{" "}
              <span className="quiet">
                {kind}, {plusMinusText(sizes[0]?.size ?? tolerance, tolerance, unit).replace(/^.*±/, "±")}
              </span>
            </caption>
            <tbody>
              {sizes.map(({ mark, size, part, colour, tabs }) => (
                <tr key={part} className="border-base-300 border-t">
                  <th scope="row" className="text-left font-normal">
                    {[mark, colour, tabs ? `${tabs} ${tabs === 1 ? "tab" : "tabs"}` : ""]
                      .filter(Boolean)
                      .join(", ")}
                  </th>
                  <td className="figure text-right">{lengthText(size, unit)}</td>
                  <td className="quiet pl-3 text-right text-sm">{part}</td>
                </tr>
              ))}
            </tbody>
          </table>
        ))}
      </div>
    </section>
  );
}
