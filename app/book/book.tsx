import { Printer } from "lucide-react";
import { useMemo } from "react";
import {
  Link,
  NavLink,
  Outlet,
  useOutletContext,
  useSearchParams,
  type ShouldRevalidateFunctionArgs,
} from "react-router";
import { useInside } from "~/door/inside";
import { skipTabChanges } from "~/look/revalidate";
import { useUnit } from "~/look/use-unit";
import { services } from "~/server/context";
import { type Applied, type Book, type Configuration, resolve, type UnitSystem, unitName } from "~core/book";
import { bookById, revisionsOf } from "~store/books";
import { houseValues, toolsOwned } from "~store/house-values";
import { Find } from "./find";
import { LEADS } from "~core/fact";
import { Able } from "~/look/able";
import type { Route } from "./+types/book";

export const loader = async ({ context, params, request }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const revisions = await revisionsOf(pool, params.unit);
  const asked = Number(new URL(request.url).searchParams.get("revision") ?? revisions[0]?.revision);
  const revision = revisions.find((one) => one.revision === asked);
  if (!revision) throw new Response("There is no such book here.", { status: 404 });
  const [{ book }, values, owned] = await Promise.all([
    bookById(pool, revision.id),
    houseValues(pool, [params.unit]),
    toolsOwned(pool, [params.unit]),
  ]);
  return { book, revisions, revision, values: values.get(params.unit) ?? [], owned: [...owned] };
};

export const shouldRevalidate = (args: ShouldRevalidateFunctionArgs): boolean =>
  args.currentUrl.searchParams.get("revision") !== args.nextUrl.searchParams.get("revision") ||
  skipTabChanges(args);

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.book.unit.name ?? "Book"} · Yard Key` },
];

/** A book as its pages see it: resolved for the configuration and the depth that the address names. */
export interface BookView {
  book: Book;
  applied: Applied;
  configuration: Configuration;
  depths: readonly string[];
  unit: UnitSystem;
  revisions: Awaited<ReturnType<typeof loader>>["revisions"];
  revision: Awaited<ReturnType<typeof loader>>["revision"];
  owned: readonly string[];
  /** Whether the person signed in may change books and house values. */
  may: boolean;
}
export const useBookView = (): BookView => useOutletContext<BookView>();

const PAGES = [
  ["", "Axis"],
  ["train", "Gears"],
  ["packs", "Packs"],
  ["chains", "Chains"],
  ["fasteners", "Fasteners"],
  ["parts", "Parts"],
  ["steps", "Steps"],
  ["service", "Service"],
  ["revisions", "Revisions"],
] as const;

export default function BookPage({
  loaderData: { book, revisions, revision, values, owned },
  params,
}: Route.ComponentProps) {
  const [search] = useSearchParams();
  const [unit, changeUnit] = useUnit(book.unit.lengthUnit);
  const { staff } = useInside();
  const view = useMemo((): BookView => {
    const configuration = Object.fromEntries(
      book.traits.map(({ id, values: known }) => {
        const asked = search.get(id);
        return [id, asked !== null && asked in known ? asked : (Object.keys(known)[0] ?? "")];
      }),
    );
    const asked = search.getAll("depth").filter((one) => book.depths.includes(one));
    const depths = asked.length > 0 ? asked : book.depths.slice(-1);
    const may = LEADS.includes(staff.role);
    const applied = resolve(book, configuration, depths, values);
    return { book, applied, configuration, depths, unit, revisions, revision, owned, may };
  }, [book, search, unit, values, revisions, revision, owned, staff.role]);
  const base = `/books/${params.unit}`;
  const query = search.size > 0 ? `?${search}` : "";
  return (
    <main className="mx-auto max-w-[1320px] p-3">
      <header className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
        <h1 className="text-2xl font-bold">{unitName(book.unit)}</h1>
        <span className="quiet">
          revision {revision.revision}
          {revision.id !== revisions[0]?.id && <b> · not the newest</b>}
        </span>
        <span className="grow" />
        <Find applied={view.applied} unit={unit} to={(page, id) => `${base}/${page}${query}#${id}`} />
        <button type="button" className="btn touch no-print" onClick={changeUnit}>
          {unit} <kbd className="key">u</kbd>
        </button>
        <button
          type="button"
          className="btn touch no-print"
          aria-label="Print this page"
          onClick={() => window.print()}
        >
          <Printer size={20} aria-hidden="true" />
        </button>
        <Link to={`/jobs/new?unit=${book.unit.id}`} className="btn btn-primary touch no-print">
          Open a job
        </Link>
      </header>
      <Versions view={view} search={search} />
      <nav aria-label="Pages of the book" className="no-print border-base-300 mb-3 flex flex-wrap border-b-2">
        {PAGES.map(([page, words]) => (
          <NavLink
            key={page}
            end
            to={`${base}${page && `/${page}`}${query}`}
            className={({ isActive }) =>
              `touch -mb-0.5 flex items-center border-b-4 px-4 font-semibold ${isActive ? "border-primary" : "border-transparent"}`
            }
          >
            {words}
          </NavLink>
        ))}
      </nav>
      <Able book={book} />
      <Outlet context={view} />
      <p className="quiet mt-4 text-sm">
        {book.unit.source}: no maker’s specification. The maker’s service information and local rules come
        first.
      </p>
    </main>
  );
}

/** Which version is shown, and for which depth of work: links, so that an address says it all. */
function Versions({ view, search }: { view: BookView; search: URLSearchParams }) {
  const { book, configuration, depths } = view;
  const rows = [
    ...book.traits.map(({ id, name, values }) => ({
      id,
      name,
      chosen: configuration[id],
      options: Object.entries(values).map(([value, { name: words, tell }]) => ({ value, words, tell })),
    })),
    {
      id: "depth",
      name: "Depth of work",
      chosen: depths.join(" + "),
      options: book.depths.map((value) => ({ value, words: value, tell: "" })),
    },
  ];
  return (
    <div className="mb-2 flex flex-wrap gap-x-5 gap-y-2">
      {rows.map(({ id, name, chosen, options }) => (
        <div key={id} className="flex items-center gap-2" role="group" aria-label={name}>
          <span className="stamp quiet">{name}</span>
          <span className="flex overflow-hidden rounded">
            {options.map(({ value, words, tell }) => {
              const next = new URLSearchParams(search);
              next.set(id, value);
              return (
                <Link
                  key={value}
                  to={`?${next}`}
                  preventScrollReset
                  title={tell}
                  aria-current={value === chosen ? "true" : undefined}
                  className={`touch border-base-300 flex items-center border-2 px-3 ${
                    value === chosen ? "bg-secondary text-secondary-content" : "bg-base-100 no-print"
                  }`}
                >
                  {words}
                </Link>
              );
            })}
          </span>
        </div>
      ))}
    </div>
  );
}
