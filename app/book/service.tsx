import type { ReactNode } from "react";
import { data, Form } from "react-router";
import { services } from "~/server/context";
import { typedIn } from "~/server/form";
import { mustBe } from "~/server/session";
import { BookPicture } from "~/pictures/shown";
import { measurementWords, nameIn, pictureIn, shownIn, type UnitSystem } from "~core/book";
import { bookById, revisionsOf } from "~store/books";
import { setToolOwned } from "~store/house-values";
import type { Route } from "./+types/service";
import { useBookView } from "./book";

/** Notes whether the shop has a tool. */
export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const by = mustBe(context, "builder", "parts", "lead", "owner");
  const { pool } = context.get(services);
  const { tool, owned } = await typedIn(request);
  const newest = (await revisionsOf(pool, params.unit))[0];
  const book = newest && (await bookById(pool, newest.id)).book;
  if (tool === undefined || !book?.tools?.some(({ id }) => id === tool))
    throw new Response("The book names no such tool.", { status: 404 });
  await setToolOwned(pool, { unit: params.unit, tool, owned: owned === "yes", by: by.name });
  return data({ done: tool });
};

/** What the bench needs besides: tools, weak points, figures that are not lengths, fluid, relearns. */
export default function ServicePage() {
  const { applied, unit } = useBookView();
  const { scoped } = applied;
  const part = (id: string | undefined): string =>
    applied.present.parts.find((one) => one.id === id)?.name ?? "";
  return (
    <div className="grid grid-cols-2 items-start gap-3">
      <Tools />
      <Plate title="Known weak points" empty="None known at this depth." count={scoped.weakPoints?.length}>
        {scoped.weakPoints?.map(({ id, name, complaint, answers }) => (
          <li key={id} id={`weak-${id}`} className="border-accent mb-3 border-l-4 pl-3 target:outline-3">
            <b className="text-lg">{name}</b>
            <span className="block">Complaint: {complaint}</span>
            <span className="block">Answers: {answers.map((answer) => answer.name).join(" / ")}</span>
          </li>
        ))}
      </Plate>
      {scoped.tips && (
        <Plate title="For next time" empty="" count={scoped.tips.length}>
          {scoped.tips.map(({ id, text, of, learnt, picture }) => (
            <li key={id} id={`tip-${id}`} className="border-base-300 border-t py-1.5 target:outline-3">
              {text}
              <span className="quiet block text-sm">
                {[of && nameIn(applied.book, of), learnt].filter(Boolean).join(" · ")}
              </span>
              <BookPicture picture={pictureIn(applied.present, picture)} words={text} />
            </li>
          ))}
        </Plate>
      )}
      <Plate
        title="Figures that are not lengths"
        empty="None at this depth."
        count={scoped.measurements?.length}
      >
        {scoped.measurements?.map((one) => (
          <li
            key={one.id}
            id={`measurement-${one.id}`}
            className="border-base-300 flex items-baseline gap-3 border-t py-1.5 target:outline-3"
          >
            <span className="grow">
              {one.name}
              <span className="quiet block text-sm">
                {[one.condition, one.range && `range ${one.range}`].filter(Boolean).join(", ")}
              </span>
            </span>
            <span className="figure max-w-[45%] text-right">{measurementWords(one, unit)}</span>
          </li>
        ))}
      </Plate>
      <Relearns work={scoped} />
      {scoped.fluid && <Fluid fluid={scoped.fluid} unit={unit} />}
      <Plate title="Soaking, sizing, reading out" empty="" count={1}>
        {scoped.soaks?.map(({ id, what, time }) => (
          <li key={id} className="border-base-300 flex justify-between border-t py-1.5">
            <span>{what}</span> <span className="figure">at least {shownIn(time, unit)}</span>
          </li>
        ))}
        {scoped.readOuts?.map(({ id, what, why }) => (
          <li key={id} className="border-base-300 border-t py-1.5">
            Read out before removal: <b>{what}</b> <span className="quiet">({why})</span>
          </li>
        ))}
      </Plate>
      <Plate title="Where metal hides" empty="Nothing noted." count={scoped.traps?.length}>
        {scoped.traps?.map(({ id, where, how }) => (
          <li key={id} className="border-base-300 border-t py-1.5">
            <b>{where}</b>: {how}
          </li>
        ))}
      </Plate>
      <Plate title="Lubrication" empty="Nothing noted." count={scoped.lubrication?.length}>
        {scoped.lubrication?.map(({ id, from, through, to, closedBy }) => (
          <li key={id} className="border-base-300 border-t py-1.5">
            {[from, ...through, to].join(" → ")}
            <span className="block font-semibold">Closed by {closedBy}</span>
          </li>
        ))}
      </Plate>
      <Outside work={scoped} part={part} />
    </div>
  );
}

type Work = ReturnType<typeof useBookView>["applied"]["scoped"];

function Relearns({ work }: { work: Work }) {
  return (
    <Plate title="Relearns, in their order" empty="None at this depth." count={work.relearns?.length}>
      {[...(work.relearns ?? [])]
        .sort((a, b) => a.order - b.order)
        .map(({ id, name, order, after, needs, minutes, leftOut, drives }) => (
          <li key={id} id={`relearn-${id}`} className="border-base-300 border-t py-2 target:outline-3">
            <b className="text-lg">
              {order}. {name}
            </b>
            <span className="block">
              after {after.map(({ what }) => what).join(", or ")}
              {minutes && `; ${minutes} min`}
              {drives && ", driving: licensed driver, local law"}
            </span>
            <span className="block">needs {needs.join(", ")}</span>
            {leftOut && <span className="quiet block text-sm">left out: {leftOut}</span>}
          </li>
        ))}
    </Plate>
  );
}

function Fluid({ fluid, unit }: { fluid: NonNullable<Work["fluid"]>; unit: UnitSystem }) {
  return (
    <Plate title="Fluid" empty="" count={1}>
      <li>
        <b className="text-lg">{fluid.name}</b>
        {fluid.note && <span className="block">{fluid.note}</span>}
      </li>
      {fluid.fills.map(({ what, amount }) => (
        <li key={what} className="border-base-300 flex justify-between border-t py-1.5">
          <span>{what}</span> <span className="figure">{shownIn(amount, unit)}</span>
        </li>
      ))}
      {fluid.level.map(({ how, persons, from, to, revs, wait }) => (
        <li key={how} className="border-base-300 border-t py-1.5">
          <b>
            Level at {shownIn(from, unit)} to {shownIn(to, unit)}, {shownIn(revs, unit)}, after{" "}
            {shownIn(wait, unit)}
          </b>
          <span className="block">
            {how}; {persons === 1 ? "one person" : "two persons"}
          </span>
        </li>
      ))}
      <li className="border-warning mt-2 border-l-4 pl-3">
        <b>Caution.</b> Hot fluid and exhaust, engine running on a lift: follow the lift’s and the vehicle’s
        procedure. Used fluid goes to the licensed collector.
      </li>
    </Plate>
  );
}

/** What sits outside, or belongs to the vehicle. */
function Outside({ work, part }: { work: Work; part: (id: string) => string }) {
  return (
    <Plate title="Park lock, linkage, taps, plugs" empty="" count={1}>
      {work.parkLock && (
        <li className="border-base-300 border-t py-1.5">
          Park lock ({work.parkLock.parts.map(part).join(", ")}): {work.parkLock.checks.join("; ")}
        </li>
      )}
      {work.linkage && (
        <li className="border-base-300 border-t py-1.5">
          Linkage {work.linkage.positions.join(" ")}: {work.linkage.keep}; {work.linkage.checks.join("; ")}
        </li>
      )}
      {work.pressureTaps?.map(({ id, name, where, thread }) => (
        <li key={id} id={`tap-${id}`} className="border-base-300 border-t py-1.5">
          <b>{name}</b> tap: {where}, {thread}
        </li>
      ))}
      {work.connectors?.map(({ id, name, where, pins, sensors }) => (
        <li key={id} className="border-base-300 border-t py-1.5">
          <b>{name}</b>: {where}, {pins} pins{sensors && `, ${sensors.join(", ")}`}
        </li>
      ))}
    </Plate>
  );
}

function Plate({
  title,
  empty,
  count = 0,
  children,
}: {
  title: string;
  empty: string;
  count?: number;
  children: ReactNode;
}) {
  return (
    <section className="plate p-5">
      <h2 className="mb-2 text-xl font-bold">{title}</h2>
      <ul>{children}</ul>
      {count === 0 && <p className="quiet">{empty}</p>}
    </section>
  );
}

/** The tools this depth asks for, which the shop has, and what serves instead. */
function Tools() {
  const { applied, owned, book } = useBookView();
  const tools = applied.scoped.tools ?? [];
  const has = (id: string): boolean => owned.includes(`${book.unit.id}/${id}`);
  return (
    <section className="plate p-5" id="tools">
      <h2 className="mb-2 text-xl font-bold">
        Tools: {tools.filter(({ id }) => has(id)).length} of {tools.length} here
      </h2>
      <ul>
        {tools.map(({ id, name, substitutes = [], does, limit, picture, learnt }) => (
          <li key={id} className="border-base-300 flex items-center gap-3 border-t py-1.5">
            <span className="grow">
              <span className={has(id) ? "" : "font-semibold"}>{name}</span>
              {does && <span className="block text-sm">{does}</span>}
              {limit && <span className="block text-sm font-semibold">{limit}</span>}
              {learnt && <span className="quiet block text-sm">{learnt}</span>}
              <BookPicture picture={pictureIn(applied.present, picture)} words={name} />
              {substitutes.map((one) => (
                <span key={one.name} className="quiet block text-sm">
                  or {one.name}
                  {one.limit && `: ${one.limit}`}
                </span>
              ))}
            </span>
            <Form method="post" preventScrollReset>
              <input type="hidden" name="tool" value={id} />
              <button
                className={`btn touch ${has(id) ? "btn-secondary" : ""}`}
                name="owned"
                value={has(id) ? "no" : "yes"}
                aria-pressed={has(id)}
              >
                {has(id) ? "✓ here" : "not here"}
              </button>
            </Form>
          </li>
        ))}
      </ul>
    </section>
  );
}
