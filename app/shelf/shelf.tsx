import { Search } from "lucide-react";
import { data, Form, Link, redirect } from "react-router";
import { v7 as newId } from "uuid";
import { useInside } from "~/door/inside";
import { useUnit } from "~/look/use-unit";
import { services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { field, uuid, whole, words } from "~core/shape";
import { mustBe } from "~/server/session";
import { lengthText, nm, type LengthUnit } from "~core/quantity";
import { FOREIGN_KEY_VIOLATION, sqlState } from "~store/database";
import { listShelf, receive, type ShelfRow } from "~store/shelf";
import type { Route } from "./+types/shelf";
import { knownSizes, sizesNear, type KnownSize } from "./sizes";

export const meta: Route.MetaFunction = () => [{ title: "Shelf · Yard Key" }];
const PAGE = 60;

export const loader = async ({ context, request }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const asked = new URL(request.url).searchParams;
  const get = (name: string): string => asked.get(name)?.trim() ?? "";
  const [find, unit, series, bin] = [get("find"), get("unit"), get("series"), get("bin")];
  const typedIn: LengthUnit = get("in") === "in" ? "in" : "mm";
  const known = await knownSizes(pool);
  const exact = [...known.keys()].find((part) => part.toLowerCase() === find.toLowerCase());
  // A part that is scanned or typed whole is that part.
  if (exact !== undefined) throw redirect(`/shelf/part/${encodeURIComponent(exact)}`);
  const ofUnit = [...known.values()].filter(
    (one) => (unit === "" || one.units.includes(unit)) && (series === "" || one.series === series),
  );
  const near = find === "" ? null : sizesNear(ofUnit, find, typedIn);
  const isNarrow = unit !== "" || series !== "" || near !== null;
  const parts = isNarrow ? (near ?? ofUnit).map(({ part }) => part) : undefined;
  const after = get("after");
  const rows = await listShelf(pool, {
    ...(parts ? { parts } : {}),
    text: near ? "" : find,
    bin,
    lowFirst: get("first") === "low",
    ...(after ? { after: { part: after, onHand: Number(get("left")) || 0 } } : {}),
    limit: PAGE,
  });
  // What is near is listed by how near it is.
  const places = new Map(near?.map(({ part }, i) => [part, i]));
  const inOrder = near
    ? [...rows].sort((a, b) => (places.get(a.part) ?? 0) - (places.get(b.part) ?? 0))
    : rows;
  return {
    rows: inOrder.map((row) => ({ ...row, movement: newId(), known: known.get(row.part) ?? null })),
    more: rows.length === PAGE && near === null,
    units: [...new Set([...known.values()].flatMap(({ units }) => units))].sort(),
    series: [...new Set(ofUnit.map((one) => one.series))].sort(),
    asked: { find, unit, series, bin, low: get("first") === "low" },
  };
};

const bought = {
  id: field(uuid),
  part: field(words(1, 80)),
  quantity: field(whole(1, 1000), "A whole number from 1 to 1000."),
};

/** Books in what was bought. */
export const action = async ({ context, request }: Route.ActionArgs) => {
  const staff = mustBe(context, "parts", "lead", "owner");
  const form = readForm(bought, await typedIn(request));
  if ("problems" in form) return data(form, { status: 400 });
  try {
    await receive(context.get(services).pool, { ...form.values, by: staff.name });
  } catch (error) {
    if (sqlState(error) !== FOREIGN_KEY_VIOLATION) throw error;
    return data(
      { problems: { quantity: "The shelf has no such part." }, typed: { part: form.values.part } },
      { status: 404 },
    );
  }
  return data({ problems: {}, typed: {} });
};

/** Fewer than this of a ring is nearly none. */
const LOW = 2;

export default function Shelf({ loaderData, actionData }: Route.ComponentProps) {
  const { rows, more, asked } = loaderData;
  const { staff } = useInside();
  const [unit] = useUnit("mm");
  const keeps = staff.role !== "builder";
  const typed: Record<string, string> = actionData?.typed ?? {};
  const problems: Record<string, string> = actionData?.problems ?? {};
  const last = rows.at(-1);
  const isAsked = Object.values(asked).some(Boolean);
  return (
    <main className="mx-auto max-w-[1320px] p-4">
      <div className="mb-3 flex items-end gap-3">
        <h1 className="text-3xl font-bold">Shelf</h1>
        <Find {...loaderData} unit={unit} />
        <span className="grow" />
        <Link to="/shelf/keep" className="btn touch">
          What to keep
        </Link>
        <Link to="/shelf/share" className="btn touch">
          Share out
        </Link>
        <Link to="/shelf/prices" className="btn touch">
          Prices
        </Link>
      </div>
      {rows.length === 0 && (
        <p className="plate p-8 text-xl">
          {isAsked ? "Nothing of that lies here." : "Nothing is kept on the shelf yet."}
        </p>
      )}
      <ul className="grid grid-cols-2 gap-2">
        {rows.map((row) => (
          <li key={row.part} className="plate flex items-center gap-4 px-4 py-2" data-part={row.part}>
            <Count row={row} />
            <span className="min-w-0 grow leading-tight">
              <Link
                to={`/shelf/part/${encodeURIComponent(row.part)}`}
                className="block truncate text-lg font-bold underline underline-offset-4"
              >
                {row.known ? sizeWords(row.known, unit) : row.name}
              </Link>
              <span className="block truncate text-sm">{row.known ? ofWords(row.known) : ""}</span>
              <span className="quiet text-sm">
                {row.part} · bin {row.bin}
                {row.orderDays !== null && ` · ${row.orderDays} d`}
                {row.reserved > 0 && <b> · {row.reserved} put aside</b>}
              </span>
              {row.oddPieces.length > 0 && (
                <span className="block text-sm">
                  odd pieces: {row.oddPieces.map(({ measured }) => lengthText(nm(measured), unit)).join(", ")}
                </span>
              )}
            </span>
            {keeps && (
              <Form method="post" className="flex items-center gap-2" preventScrollReset>
                <input type="hidden" name="id" value={row.movement} />
                <input type="hidden" name="part" value={row.part} />
                <input
                  key={row.onHand}
                  name="quantity"
                  inputMode="numeric"
                  className={`input touch w-18 ${typed.part === row.part && problems.quantity ? "input-error" : ""}`}
                  aria-label={`How many of ${row.part} came in`}
                  aria-describedby={typed.part === row.part ? "quantity-problem" : undefined}
                  defaultValue={typed.part === row.part ? typed.quantity : ""}
                />
                <button className="btn touch">Book in</button>
              </Form>
            )}
            {typed.part === row.part && problems.quantity && (
              <p id="quantity-problem" role="alert" className="text-error font-semibold">
                {problems.quantity}
              </p>
            )}
          </li>
        ))}
      </ul>
      {more && last && (
        <Link to={`?${moreOf(asked, last)}`} className="btn touch mt-4">
          More
        </Link>
      )}
    </main>
  );
}

type Asked = Route.ComponentProps["loaderData"]["asked"];

const moreOf = ({ find, unit, series, bin, low }: Asked, last: ShelfRow): string =>
  new URLSearchParams({
    ...(find ? { find } : {}),
    ...(unit ? { unit } : {}),
    ...(series ? { series } : {}),
    ...(bin ? { bin } : {}),
    ...(low ? { first: "low" } : {}),
    after: last.part,
    left: `${last.onHand}`,
  }).toString();

const sizeWords = ({ size, mark }: KnownSize, unit: LengthUnit): string =>
  `${lengthText(size, unit)} · ${mark}`;
const ofWords = ({ series, units }: KnownSize): string => `${series}, ${units.join(" and ")}`;

/** What is looked for: a thickness, a part, a bin; of which unit and series; the emptiest first. */
function Find({ units, series, asked, unit }: Route.ComponentProps["loaderData"] & { unit: LengthUnit }) {
  return (
    <Form method="get" className="flex flex-wrap items-end gap-2" role="search" key={JSON.stringify(asked)}>
      <input type="hidden" name="in" value={unit} />
      <label className="block">
        <span className="stamp block">Thickness in {unit}, part or name</span>
        <input
          name="find"
          defaultValue={asked.find}
          autoComplete="off"
          autoFocus
          className="input touch w-52 text-lg"
        />
      </label>
      <Pick label="Unit" name="unit" value={asked.unit} options={units} />
      <Pick label="Series" name="series" value={asked.series} options={series} />
      <label className="block">
        <span className="stamp block">Bin</span>
        <input name="bin" defaultValue={asked.bin} autoComplete="off" className="input touch w-24" />
      </label>
      <label className="touch flex items-center gap-2 pb-1">
        <input type="checkbox" className="checkbox" name="first" value="low" defaultChecked={asked.low} /> low
        first
      </label>
      <button className="btn btn-primary touch" aria-label="Find">
        <Search size={20} aria-hidden="true" />
      </button>
    </Form>
  );
}

const Pick = ({
  label,
  name,
  value,
  options,
}: {
  label: string;
  name: string;
  value: string;
  options: readonly string[];
}) => (
  <label className="block">
    <span className="stamp block">{label}</span>
    <select name={name} defaultValue={value} className="select touch w-40">
      <option value="">all</option>
      {options.map((one) => (
        <option key={one} value={one}>
          {one}
        </option>
      ))}
    </select>
  </label>
);

export function Count({ row: { onHand } }: { row: Pick<ShelfRow, "onHand"> }) {
  const words = onHand === 0 ? "none" : onHand <= LOW ? "low" : "";
  return (
    <span className="w-16 shrink-0 text-center leading-none">
      <b className={`block text-3xl ${onHand === 0 ? "text-error" : onHand <= LOW ? "text-warning" : ""}`}>
        {onHand}
      </b>
      <span className="stamp">{words}</span>
    </span>
  );
}
