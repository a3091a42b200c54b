import { Link, useLocation } from "react-router";
import { Facts } from "~/look/facts";
import { Stack } from "~/look/stack";
import { type Pack, type PackChain, shownIn, specWords } from "~core/book";
import { counts, nominalGap, plates } from "~core/pack";
import { lengthText, plusMinusText } from "~core/quantity";
import { useBookView } from "./book";

/** Every pack of this version to scale, with what its drum and piston are. */
export default function PacksPage() {
  const { applied } = useBookView();
  const { packs } = applied.present;
  if (packs.length === 0)
    return (
      <p className="plate p-6 text-xl">
        This unit has no multi-plate packs; its clutch is served as an assembly.
      </p>
    );
  return (
    <div className="grid gap-3">
      {packs.map((pack) => (
        <PackPlate
          key={pack.element}
          pack={pack}
          chain={applied.packs.find((one) => one.pack.element === pack.element)}
        />
      ))}
    </div>
  );
}

function PackPlate({ pack, chain }: { pack: Pack; chain: PackChain | undefined }) {
  const { unit, applied, book } = useBookView();
  const { search } = useLocation();
  const sizes = chain?.seats[0]?.sizes ?? [];
  const ring = sizes[Math.floor(sizes.length / 2)]?.size ?? null;
  const { frictions, steels } = counts(pack.stack);
  const facts: [string, string | undefined][] = [
    [
      "Facing",
      pack.facing &&
        `radius ${lengthText(pack.facing.inner, unit)} to ${lengthText(pack.facing.outer, unit)}, μ ${pack.facing.friction}`,
    ],
    [
      "Piston",
      pack.piston &&
        `${shownIn(pack.piston.area, unit)}, ${pack.piston.seals}${pack.piston.balanced ? ", balanced" : ""}`,
    ],
    ["Bleed", pack.piston?.bleed],
    [
      "Return spring",
      pack.spring &&
        `${pack.spring.kind}, ${shownIn(pack.spring.force, unit)}${pack.spring.lever ? `, lever ${pack.spring.lever}` : ""}`,
    ],
    ["Pressure", pack.pressure && shownIn(pack.pressure, unit)],
    [
      "Groove",
      pack.grooves
        ?.map(({ ring: own, alsoTakes = [], bevel }) => {
          const name = (id: string): string => book.series.find((s) => s.id === id)?.name ?? id;
          return `${name(own)}${bevel ? `, ${bevel}` : ""}${alsoTakes.length > 0 ? `; takes by mistake: ${alsoTakes.map(name).join(", ")}` : ""}`;
        })
        .join(" / "),
    ],
    ["Looks worn, is not", pack.normal?.join("; ")],
  ];
  const element = applied.present.elements.find(({ id }) => id === pack.element);
  // One of several packs is listed with the first of them.
  const ways = (applied.present.stronger ?? []).filter(({ elements }) => elements[0] === pack.element);
  return (
    <article
      id={`pack-${pack.element}`}
      className="plate grid grid-cols-[minmax(0,7fr)_minmax(0,5fr)] gap-5 p-5 target:outline-3"
    >
      <div>
        <h2 className="text-2xl font-bold">
          {pack.element.toUpperCase()} <span className="text-xl font-normal">{pack.name}</span>
        </h2>
        <p className="quiet mb-2">
          {[
            ...(element?.aka.filter((aka) => aka !== pack.name) ?? []),
            pack.duty === "standstill" ? "engages only at standstill" : "shifting",
          ].join(" · ")}
        </p>
        <Stack
          plates={plates(pack.stack)}
          gap={chain ? nominalGap(chain, ring) : null}
          ring={ring}
          unit={unit}
          caption={pack.element.toUpperCase()}
        />
        {chain && (
          <p className="mt-2 text-lg">
            <Link to={`../chains${search}#chain-${chain.chain.id}`} className="underline underline-offset-4">
              Clearance
            </Link>{" "}
            <b className="figure">{specWords(chain, unit)}</b>, {chain.spec.state.soak}
            {chain.spec.state.wave && `, wave ${chain.spec.state.wave}`}
          </p>
        )}
        {ways.length > 0 && (
          <p className="mt-2">
            <b className="stamp">Made stronger by</b>{" "}
            {ways.map(({ id, name }, i) => (
              <span key={id} id={`way-${id}`} className="target:font-bold">
                {i > 0 && "; "}
                {name}
              </span>
            ))}
          </p>
        )}
      </div>
      <div>
        <table className="mb-3 w-full text-lg">
          <caption className="stamp quiet text-left">
            From the piston outwards: {frictions} frictions, {steels} steels
          </caption>
          <tbody>
            {pack.stack.map((entry, i) => (
              <tr key={i} className="border-base-300 border-t">
                <td className="figure w-10 py-1">{entry.count ?? 1} ×</td>
                <th scope="row" className="text-left font-normal">
                  {entry.role}
                  {entry.faced && entry.role === "friction" && `, ${entry.faced}`}
                  {entry.lies && <span className="quiet block text-sm">{entry.lies}</span>}
                  {entry.wave && (
                    <span className="quiet block text-sm">
                      stands up {plusMinusText(entry.wave.amount, entry.wave.within, unit)}
                    </span>
                  )}
                </th>
                <td className="figure text-right align-top">
                  {entry.thickness === undefined ? "not known" : lengthText(entry.thickness, unit)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <Facts rows={facts} />
      </div>
    </article>
  );
}
