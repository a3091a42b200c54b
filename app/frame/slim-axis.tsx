import { Link } from "react-router";
import { Mark } from "~/look/mark";
import type { AxisPack } from "~/look/axis";

/** Another figure that a piece is chosen for: an end play, a preload, a band. */
export type OtherFigure = Pick<AxisPack, "id" | "name" | "mark" | "words" | "quiet" | "current" | "to">;

/**
 * The axis in one line: the packs in the order they sit, strung on the shaft, each the way into its worksheet; behind them the mark of every other
 * figure that a piece is chosen for, and in the list behind those its name.
 */
export const SlimAxis = ({
  packs,
  others,
}: {
  packs: readonly AxisPack[];
  others: readonly OtherFigure[];
}) => (
  <nav aria-label="Pages of this stage" className="relative flex shrink-0 items-center gap-2">
    <svg className="absolute inset-x-0 top-1/2 -z-10 h-1 w-full" aria-hidden="true">
      <path d="M0 2H2000" className="stroke-ink" strokeWidth="1.5" strokeDasharray="18 5 4 5" />
    </svg>
    {packs.map(({ id, name, mark, quiet, current, to, words }) => (
      <Link
        key={id}
        to={to}
        aria-current={current ? "page" : undefined}
        aria-label={`${name}: ${words}`}
        className={`touch bg-base-100 flex shrink-0 items-center gap-2 rounded border-2 px-2.5 max-[1100px]:gap-1 max-[1100px]:px-1.5 ${
          current ? "border-primary" : "border-base-300"
        } ${quiet ? "quiet border-dashed" : ""}`}
      >
        <Mark name={mark} size={24} />
        <b className="text-lg max-[1100px]:text-base">{name}</b>
      </Link>
    ))}
    {others.length > 0 && <Others others={others} />}
  </nav>
);

function Others({ others }: { others: readonly OtherFigure[] }) {
  const asked = others.filter(({ quiet }) => !quiet);
  const done = asked.filter(({ mark }) => ["inside", "signed", "not stated"].includes(mark)).length;
  const here = others.find(({ current }) => current);
  return (
    // Drawn anew for each figure, so that it is shut once one has been gone to.
    <details key={here?.id ?? ""} className="relative" data-others={asked.length}>
      <summary
        className={`touch bg-base-100 flex cursor-pointer list-none items-center gap-2 rounded border-2 px-2.5 font-bold whitespace-nowrap ${
          here ? "border-primary" : "border-base-300"
        }`}
      >
        {/* Six marks are told apart at a glance; more are counted. */}
        {asked.length <= 6 ? (
          <span className="flex gap-0.5">
            {asked.map(({ id, name, mark, words }) => (
              <span key={id} title={`${name}: ${words}`} className="flex">
                <Mark name={mark} size={18} />
              </span>
            ))}
          </span>
        ) : (
          <span className="quiet font-normal max-[1100px]:sr-only">{`${done} of ${asked.length}`}</span>
        )}
        Others
        {asked.length <= 6 && <span className="sr-only">{`${done} of ${asked.length}`}</span>}
      </summary>
      <ul className="plate absolute top-full left-0 z-30 mt-1 w-96 p-2 shadow-lg">
        {others.map(({ id, name, mark, words, quiet, current, to }) => (
          <li key={id}>
            <Link
              to={to}
              aria-current={current ? "page" : undefined}
              className={`touch flex items-center gap-3 rounded px-2 ${quiet ? "quiet" : ""} ${current ? "bg-base-200" : ""}`}
            >
              <Mark name={mark} size={24} />
              <span className="leading-tight">
                <b className="block">{name}</b>
                <span className="block text-sm">{words}</span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </details>
  );
}
