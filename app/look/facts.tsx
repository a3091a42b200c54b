import type { ReactNode } from "react";

/** Names with their values, one line each; those without a value are left out. */
export function Facts({ rows }: { rows: readonly (readonly [name: string, value: ReactNode])[] }) {
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
      {rows.map(
        ([name, value]) =>
          value && (
            <div key={name} className="contents">
              <dt className="quiet">{name}</dt>
              <dd>{value}</dd>
            </div>
          ),
      )}
    </dl>
  );
}
