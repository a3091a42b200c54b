import { bookFoot } from "~/look/source";
import { useMemo, useState } from "react";
import { useInside } from "~/door/inside";
import { useWhen } from "~/door/when";
import { standingIn } from "~/view/standing";
import { useJobView } from "~/view/view";
import { customerSheet } from "~core/handover";
import { houseOf } from "~core/measure";
import { KEPT } from "~/offline/keys";
import { loadOrKept } from "~/offline/kept";
import { numbersOf, pricedNow } from "~/parts/needs";
import { services } from "~/server/context";
import { jobRecord } from "~/server/job-context";
import { pricesOf } from "~store/prices";
import type { Route } from "./+types/customer";

export const meta: Route.MetaFunction = ({ params }) => [
  { title: `For the customer ${params.number} · Yard Key` },
];

/** What the parts of its book cost. */
export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const { book } = await jobRecord(context, params.number);
  return { prices: [...(await pricesOf(pool, numbersOf(book)))] };
};

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.page(params.number, "customer"), serverLoader, () => ({ prices: [] }));

/** The plain sheet that goes with the vehicle. */
export default function CustomerPage({ loaderData: { prices } }: Route.ComponentProps) {
  const view = useJobView();
  const { job, applied, unit, number, book } = view;
  const { open } = standingIn(view);
  const { house } = useInside();
  const { day } = useWhen();
  const [today] = useState(() => new Date().toISOString());
  const sheet = useMemo(
    () => customerSheet(job, applied, houseOf(job, house), unit, pricedNow(job, applied, house, prices)),
    [job, applied, house, unit, prices],
  );
  return (
    <>
      <div className="no-print mb-2 flex min-h-[50px] items-center gap-3">
        <p className="grow text-lg">
          {job.closed ? "As it left." : `Not final: ${open.length} answers are still to come.`}
        </p>
        <a className="btn btn-primary touch" href={`/jobs/${number}/customer.pdf?unit=${unit}`}>
          PDF
        </a>
      </div>
      <article className="plate p-6 print:border-0 print:p-0" aria-label="For the customer">
        <header className="mb-3 flex items-baseline justify-between">
          <h1 className="text-2xl font-bold">{job.booking?.body.vehicle ?? "Your vehicle"}</h1>
          <p>
            {house.shopName}, {day(job.closed?.at ?? today)}
          </p>
        </header>
        {sheet.parts.map(({ title, lines }) => (
          <section
            key={title}
            className="border-base-300 grid grid-cols-[13rem_1fr] border-t py-2"
            data-told={title}
          >
            <h2 className="font-bold">{title}</h2>
            <ul className="text-lg leading-snug">
              {lines.map((line) => (
                <li key={line} className="first-letter:uppercase">
                  {line}
                </li>
              ))}
            </ul>
          </section>
        ))}
        {sheet.figures.length > 0 && (
          <section className="border-base-300 grid grid-cols-[13rem_1fr] border-t py-2" data-told="figures">
            <h2 className="font-bold">It left with</h2>
            <table>
              <tbody>
                {sheet.figures.map(({ name, spec, is }) => (
                  <tr key={name} className="border-base-300 border-b last:border-0">
                    <td className="py-0.5 pr-3">{name}</td>
                    <td className="figure pr-3 text-lg">{is}</td>
                    <td className="quiet text-sm">{spec}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        )}
        <p className="mt-3 text-sm">Limits are of {bookFoot(book)}</p>
      </article>
    </>
  );
}
