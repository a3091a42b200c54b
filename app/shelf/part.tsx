import { data, Form, Link, redirect } from "react-router";
import { v7 as newId } from "uuid";
import { useInside } from "~/door/inside";
import { useWhen } from "~/door/when";
import { Field } from "~/look/field";
import { useUnit } from "~/look/use-unit";
import { services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { mustBe } from "~/server/session";
import { lengthText, moneyText, nm } from "~core/quantity";
import { field, uuid, whole, words } from "~core/shape";
import { countShelf, listShelf, movementsOf, reservedOf } from "~store/shelf";
import type { Route } from "./+types/part";
import { Count } from "./shelf";
import { knownSizes } from "./sizes";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `${params.part} · Yard Key` }];

export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const { part } = params;
  const [[row], movements, reserved, known] = await Promise.all([
    listShelf(pool, { parts: [part], limit: 1 }),
    movementsOf(pool, part),
    reservedOf(pool, part),
    knownSizes(pool),
  ]);
  if (!row) throw new Response("The shelf has no such part.", { status: 404 });
  return { row, movements, reserved, known: known.get(part) ?? null, movement: newId() };
};

const counted = {
  id: field(uuid),
  counted: field(whole(0, 100_000), "Write how many lie there: a whole number."),
  reason: field(words(2, 200), "Say why the count was wrong, or that it was counted."),
};

/** Sets the count right. */
export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const staff = mustBe(context, "parts", "lead", "owner");
  const form = readForm(counted, await typedIn(request));
  if ("problems" in form) return data(form, { status: 400 });
  await countShelf(context.get(services).pool, { ...form.values, part: params.part, by: staff.name });
  throw redirect(`/shelf/part/${encodeURIComponent(params.part)}`);
};

/** One part: how many lie where, who has put some aside, and every movement with its job and person. */
export default function Part({ loaderData, actionData }: Route.ComponentProps) {
  const { row, movements, reserved, known, movement } = loaderData;
  const { staff } = useInside();
  const when = useWhen();
  const [unit] = useUnit("mm");
  const typed: Record<string, string> = actionData?.typed ?? {};
  const problems: Record<string, string> = actionData?.problems ?? {};
  return (
    <main className="mx-auto max-w-[1320px] p-4">
      <p>
        <Link to="/shelf" className="touch inline-flex items-center underline underline-offset-4">
          Shelf
        </Link>
      </p>
      <div className="grid grid-cols-[minmax(0,20fr)_minmax(0,29fr)] gap-3">
        <section className="plate p-5">
          <div className="flex items-center gap-5">
            <Count row={row} />
            <div className="leading-tight">
              <h1 className="text-2xl font-bold">
                {known ? `${lengthText(known.size, unit)} · ${known.mark}` : row.name}
              </h1>
              <p>{known ? `${known.series}, ${known.units.join(" and ")}` : ""}</p>
              <p className="quiet">
                {row.part} · bin {row.bin}
                {row.priceCents !== null && ` · ${moneyText(row.priceCents)}`}
                {row.orderDays !== null && ` · ${row.orderDays} d to order`}
              </p>
            </div>
          </div>
          {row.oddPieces.length > 0 && (
            <p className="mt-2">
              Odd pieces:{" "}
              <b>{row.oddPieces.map(({ measured }) => lengthText(nm(measured), unit)).join(", ")}</b>
            </p>
          )}
          {reserved.length > 0 && (
            <ul className="mt-2" aria-label="Put aside">
              {reserved.map(({ job, seat, by }) => (
                <li key={`${job} ${seat}`}>
                  Put aside for{" "}
                  <Link to={`/jobs/${job}/choose`} className="touch underline underline-offset-4">
                    job {job}
                  </Link>{" "}
                  by {by}
                </li>
              ))}
            </ul>
          )}
          {staff.role !== "builder" && (
            <Form method="post" className="border-base-300 mt-4 border-t pt-3">
              <input type="hidden" name="id" value={movement} />
              <div className="flex gap-3">
                <div className="w-32">
                  <Field
                    key={row.onHand}
                    label="Counted"
                    name="counted"
                    inputMode="numeric"
                    autoComplete="off"
                    autoFocus
                    defaultValue={typed.counted ?? ""}
                    problem={problems.counted}
                  />
                </div>
                <div className="grow">
                  <Field
                    label="Why"
                    name="reason"
                    defaultValue={typed.reason ?? "counted"}
                    problem={problems.reason}
                  />
                </div>
              </div>
              <button className="btn touch w-full">Set the count right</button>
            </Form>
          )}
        </section>
        <section className="plate px-5 py-3" aria-label="Movements">
          <h2 className="text-xl font-bold">Movements</h2>
          {movements.length === 0 && <p>Nothing has moved yet.</p>}
          <table className="w-full">
            <tbody>
              {movements.map(({ id, quantity, why, job, by, at, measured }) => (
                <tr key={id} className="border-base-300 border-t" data-moved={quantity}>
                  <td className="w-14 py-1 text-right text-lg font-bold whitespace-nowrap">
                    {quantity > 0 ? `+${quantity}` : `−${-quantity}`}
                  </td>
                  <td className="py-1 pl-4">
                    {why}
                    {measured !== null && `, measured ${lengthText(nm(measured), unit)}`}
                    {job !== null && (
                      <>
                        {" · "}
                        <Link to={`/jobs/${job}`} className="underline underline-offset-4">
                          job {job}
                        </Link>
                      </>
                    )}
                  </td>
                  <td className="quiet py-1 pl-4 text-right text-sm whitespace-nowrap">
                    {by}, {when.moment(at)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      </div>
    </main>
  );
}
