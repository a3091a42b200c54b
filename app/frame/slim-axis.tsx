import { Link } from "react-router";
import { Mark } from "~/look/mark";
import type { AxisPack } from "~/look/axis";

/** The axis in one line: the packs in the order they sit, strung on the shaft, each the way into its worksheet. */
export const SlimAxis = ({ packs }: { packs: readonly AxisPack[] }) => (
  <nav aria-label="Pages of this stage" className="relative flex min-w-0 items-center gap-2">
    <svg className="absolute inset-x-0 top-1/2 -z-10 h-1 w-full" aria-hidden="true">
      <path d="M0 2H2000" className="stroke-ink" strokeWidth="1.5" strokeDasharray="18 5 4 5" />
    </svg>
    {packs.map(({ id, name, mark, quiet, current, to, words }) => (
      <Link
        key={id}
        to={to}
        aria-current={current ? "page" : undefined}
        aria-label={`${name}: ${words}`}
        className={`touch bg-base-100 flex items-center gap-2 rounded border-2 px-2.5 ${
          current ? "border-primary" : "border-base-300"
        } ${quiet ? "quiet border-dashed" : ""}`}
      >
        <Mark name={mark} size={24} />
        <b className="text-lg">{name}</b>
      </Link>
    ))}
  </nav>
);
