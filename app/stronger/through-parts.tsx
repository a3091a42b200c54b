import type { UnitSystem } from "~core/book";
import type { Through } from "~core/capacity";
import { torqueText } from "./figures";

const SAYS: Readonly<Record<Through["judged"], string>> = {
  enough: "enough",
  thin: "little over",
  slips: "breaks",
};

/** Shafts, hubs and drums that the book says what they take of, beside what runs through them: none of them slips before it breaks. */
export function ThroughParts({ through, unit }: { through: readonly Through[]; unit: UnitSystem }) {
  if (through.length === 0) return null;
  return (
    <section className="plate px-4 py-2" aria-label="Shafts and hubs">
      <h2 className="stamp mb-1">Shafts, hubs and drums: what breaks instead of slipping</h2>
      <table className="w-full">
        <tbody>
          {through.map(({ part, way, takes, torque, range, margin, judged }) => (
            <tr
              key={part.id}
              className="border-base-300 border-t"
              data-through={part.id}
              data-judged={judged}
            >
              <th scope="row" className="py-1 text-left font-semibold">
                {part.name}
                {way && <span className="quiet block text-sm font-normal">{way.name}</span>}
              </th>
              <td className="py-1 text-right">
                takes <b>{torqueText(takes, unit)}</b>, must {torqueText(torque, unit)} in {range}
              </td>
              <td className={`figure w-20 text-right ${judged === "slips" ? "text-error" : ""}`}>
                {margin.toFixed(2)}×
              </td>
              <td className="w-24 pl-3 font-semibold">{SAYS[judged]}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
