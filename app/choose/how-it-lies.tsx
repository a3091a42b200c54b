import type { PackChain } from "~core/book";

/** How plates lie that can lie two ways, and what looks like wear in this pack and is not: said where one assembles and judges. */
export function HowItLies({ applied: { pack, stack }, found }: { applied: PackChain; found: boolean }) {
  const lying = stack.filter(({ lies: way }) => way !== undefined);
  const normal = found ? (pack.normal ?? []) : [];
  if (lying.length === 0 && normal.length === 0) return null;
  return (
    <dl className="border-base-300 mb-3 border-t pt-2" data-lies={lying.length}>
      {lying.map(({ role, lies: way }, i) => (
        <div key={`${role} ${i}`} className="flex gap-2">
          <dt className="quiet">The {role} lies</dt>
          <dd className="font-semibold">{way}</dd>
        </div>
      ))}
      {normal.length > 0 && (
        <div className="flex gap-2">
          <dt className="quiet shrink-0">Normal here</dt>
          <dd className="font-semibold">{normal.join("; ")}</dd>
        </div>
      )}
    </dl>
  );
}
