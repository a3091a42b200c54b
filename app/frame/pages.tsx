import { ArrowRight } from "lucide-react";
import { Link, NavLink, useLocation } from "react-router";
import type { Next } from "~core/stage";
import { placeOf, type Page } from "./stages";

/** The pages within a stage. */
export const Pages = ({
  number,
  pages,
  label = "Pages of this stage",
}: {
  number: number;
  pages: readonly Page[];
  label?: string;
}) => (
  <nav aria-label={label} className="flex min-w-0 gap-1">
    {pages.map(({ path, words }) => (
      <NavLink
        key={path}
        to={`/jobs/${number}/${path}`}
        end
        className={({ isActive }) =>
          `touch flex items-center border-b-3 px-3 font-semibold whitespace-nowrap ${isActive ? "border-primary" : "border-transparent"}`
        }
      >
        {words}
      </NavLink>
    ))}
  </nav>
);

/** How wide what is next is, and what the head of a page beside it leaves free. */
export const BESIDE = { wide: "max-w-72", free: "pr-76" } as const;

/** What is next on this job and why, one touch away from anywhere in it. */
export function NextThing({ number, next }: { number: number; next: Next }) {
  const { pathname } = useLocation();
  const to = `/jobs/${number}/${placeOf(next)}`.replace(/\/$/, "");
  const here = to.split(/[?#]/)[0] === pathname;
  return (
    <Link
      to={to}
      data-next={next.what}
      className={`touch border-accent flex min-w-0 items-center gap-2 border-l-4 pr-1 pl-3 leading-tight ${here ? "quiet" : ""}`}
    >
      <span className="min-w-0">
        <span className="block truncate font-bold">{next.name}</span>
        <span className="block truncate text-sm">{next.words}</span>
      </span>
      {!here && <ArrowRight size={22} className="shrink-0" aria-label="next" />}
    </Link>
  );
}
