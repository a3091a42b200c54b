import { data, Form, Link } from "react-router";
import { v7 as newId } from "uuid";
import { useInside } from "~/door/inside";
import { services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { field, uuid, whole, words } from "~core/shape";
import { mustBe } from "~/server/session";
import { lengthText, nm } from "~core/quantity";
import { FOREIGN_KEY_VIOLATION, sqlState } from "~store/database";
import { listShelf, receive, type ShelfRow } from "~store/shelf";
import type { Route } from "./+types/shelf";

export const meta: Route.MetaFunction = () => [{ title: "Shelf · Yard Key" }];
const PAGE = 60;

export const loader = async ({ context, request }: Route.LoaderArgs) => {
  const after = new URL(request.url).searchParams.get("after") ?? "";
  const rows = await listShelf(context.get(services).pool, after, PAGE);
  return { rows: rows.map((row) => ({ ...row, movement: newId() })), more: rows.length === PAGE };
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

export default function Shelf({ loaderData: { rows, more }, actionData }: Route.ComponentProps) {
  const { staff } = useInside();
  const keeps = staff.role !== "builder";
  const typed: Record<string, string> = actionData?.typed ?? {};
  const problems: Record<string, string> = actionData?.problems ?? {};
  return (
    <main className="mx-auto max-w-[1320px] p-4">
      <div className="mb-3 flex items-center gap-3">
        <h1 className="text-3xl font-bold">Shelf</h1>
        <Link to="/shelf/prices" className="btn touch">
          Prices
        </Link>
      </div>
      {rows.length === 0 && <p className="plate p-8 text-xl">Nothing is kept on the shelf yet.</p>}
      <ul className="grid grid-cols-2 gap-2">
        {rows.map((row) => (
          <li key={row.part} className="plate flex items-center gap-4 px-4 py-2">
            <Count row={row} />
            <span className="min-w-0 grow leading-tight">
              <b className="block truncate text-lg">{row.name}</b>
              <span className="quiet text-sm">
                {row.part} · bin {row.bin}
                {row.orderDays !== null && ` · ${row.orderDays} d`}
              </span>
              {row.oddPieces.length > 0 && (
                <span className="block text-sm">
                  odd pieces: {row.oddPieces.map(({ measured }) => lengthText(nm(measured), "mm")).join(", ")}
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
      {more && (
        <Link to={`?after=${encodeURIComponent(rows.at(-1)?.part ?? "")}`} className="btn touch mt-4">
          More
        </Link>
      )}
    </main>
  );
}

function Count({ row: { onHand } }: { row: ShelfRow }) {
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
