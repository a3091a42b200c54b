import { KEPT } from "~/offline/keys";
import { loadOrKept } from "~/offline/kept";
import { Printer } from "lucide-react";
import { useState } from "react";
import type { Route } from "./+types/labels";
import { useBuild } from "~/build/use-build";
import { subAssembliesOf } from "~core/build";
import { NewPlace } from "~/bench/new-place";
import { useJobView } from "~/view/view";
import { Field } from "~/look/field";
import { Qr } from "~/look/qr";
import { useAnchor } from "~/look/use-scripted";
import { services } from "~/server/context";
import { PLACE_SORTS } from "~core/fact";
import { jobContext } from "~/server/job-context";
import { codeOf } from "~/scan/code";
import { originOf } from "./make";
import { SHEETS } from "./sheets";

const MOST_SHOWN = 25;

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Labels ${params.number} · Yard Key` }];

export const loader = async ({ context, request, params }: Route.LoaderArgs) => {
  const { printerUrl } = context.get(services);
  const { scoped } = (await jobContext(context, params.number)).applied;
  return {
    printer: printerUrl !== "",
    origin: originOf(request),
    parts: scoped.parts.map(({ id, name, number }) => ({ id, name, number })),
  };
};

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.page(params.number, "labels"), serverLoader, () => ({
    printer: false,
    origin: window.location.origin,
    parts: [] as { id: string; name: string; number: string }[],
  }));

type Listed = Route.ComponentProps["loaderData"]["parts"];

/** Every part of the unit, searched: a unit has a hundred. */
function Parts({ parts }: { parts: Listed }) {
  const { number } = useJobView();
  const [wanted, setWanted] = useState("");
  const shown = wanted
    ? parts.filter(({ name, number: part }) => `${name} ${part}`.toLowerCase().includes(wanted.toLowerCase()))
    : parts;
  return (
    <details className="border-base-300 mt-2 border-t">
      <summary className="touch flex cursor-pointer items-center font-semibold underline underline-offset-4">
        Parts of this unit ({parts.length})
      </summary>
      <Field label="Find a part" value={wanted} onChange={(event) => setWanted(event.target.value)} />
      <div className="max-h-72 overflow-y-auto" tabIndex={0} role="group" aria-label="Parts">
        {shown.slice(0, MOST_SHOWN).map(({ id, name, number: part }) => (
          <Tick key={id} code={codeOf({ kind: "part", job: number, part: id })}>
            {name} <span className="quiet">{part}</span>
          </Tick>
        ))}
      </div>
      {shown.length > MOST_SHOWN && (
        <p className="quiet">{`${shown.length - MOST_SHOWN} more: write part of the name.`}</p>
      )}
    </details>
  );
}

/** What is put together by itself: its label says what was proven of it. Opened again, it has none. */
function Built() {
  const { number } = useJobView();
  const subs = subAssembliesOf(useBuild()).filter(({ isBuilt, opened }) => isBuilt || opened !== null);
  if (subs.length === 0) return null;
  return (
    <>
      <h2 className="stamp quiet mt-3">Put together</h2>
      {subs.map(({ id, name, isBuilt, proven }) => (
        <div key={id} className="border-base-300 border-t" data-sub={id} data-built={isBuilt}>
          {isBuilt ? (
            <Tick code={codeOf({ kind: "sub", job: number, sub: id })}>
              <b>{name}</b> <span className="quiet block text-sm">{proven.join("; ")}</span>
            </Tick>
          ) : (
            <p className="flex min-h-[46px] items-center">
              <span>
                <b>{name}</b>: opened again, its label is void
              </span>
            </p>
          )}
        </div>
      ))}
    </>
  );
}

/** Labels for the case, trays, bins and parts; each opens what it belongs to. */
export default function Labels({ loaderData: { printer, origin, parts } }: Route.ComponentProps) {
  const { job, number } = useJobView();
  const anchor = useAnchor();
  const [said, setSaid] = useState<{ good: boolean; words: string } | null>(null);
  const places = job.places;
  const print = async (form: HTMLFormElement): Promise<void> => {
    const answer = await fetch(form.action, { method: "POST", body: new FormData(form) }).catch(() => null);
    if (answer?.ok) return setSaid({ good: true, words: "Sent to the label printer." });
    const { problem } = ((await answer?.json().catch(() => ({}))) ?? {}) as { problem?: string };
    setSaid({ good: false, words: problem ?? "The shop’s server is away; nothing was printed." });
  };
  return (
    <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] items-start gap-3">
      <form
        method="get"
        action={`/jobs/${number}/labels.pdf`}
        target="_blank"
        className="plate p-4"
        aria-label="Labels to print"
      >
        <div className="mb-2 flex items-start gap-4">
          <Qr
            text={`${origin}/scan/${codeOf({ kind: "case", job: number })}`}
            className="size-32 shrink-0 rounded"
          />
          <div className="grow">
            <Tick code={codeOf({ kind: "case", job: number })} checked>
              <b className="text-2xl">Job {number}</b>
              <span className="quiet block">{job.booking?.body.vehicle}, for the case</span>
            </Tick>
            <p className="quiet text-sm">
              Scanned with a scanner that types, with the camera, or with a phone, a label opens what it
              belongs to.
            </p>
          </div>
        </div>
        <h2 className="stamp quiet">Trays, bins and bags</h2>
        {places.length === 0 && <p className="quiet">None yet.</p>}
        {places.map(({ id, body }) => (
          <div
            key={id}
            id={`place-${body.place}`}
            data-place={body.place}
            className={`border-base-300 border-t ${anchor === `place-${body.place}` ? "outline-primary outline-3" : ""}`}
          >
            <Tick code={codeOf({ kind: "place", job: number, place: body.place })} checked>
              <b>{body.name}</b> <span className="quiet">{PLACE_SORTS.words[body.sort]}</span>
            </Tick>
          </div>
        ))}
        <Built />
        <Parts parts={parts} />
        <div className="border-base-300 mt-3 flex flex-wrap items-end gap-3 border-t pt-3">
          <div>
            <label className="stamp mb-1 block" htmlFor="sheet">
              Sheet
            </label>
            <select id="sheet" name="sheet" className="select touch">
              {SHEETS.filter(({ id }) => id !== "roll").map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </div>
          <div className="w-28">
            <label className="stamp mb-1 block" htmlFor="used">
              Used already
            </label>
            <input
              id="used"
              name="used"
              type="number"
              min={0}
              max={29}
              defaultValue={0}
              className="input touch"
            />
          </div>
          <button className="btn btn-primary touch">
            <Printer size={20} aria-hidden="true" /> Label sheet
          </button>
          {printer && (
            <button
              type="button"
              className="btn touch"
              onClick={(event) => event.currentTarget.form && void print(event.currentTarget.form)}
            >
              Label printer
            </button>
          )}
          {said && (
            <p
              role={said.good ? "status" : "alert"}
              className={`font-semibold ${said.good ? "text-success" : "text-error"}`}
            >
              {said.words}
            </p>
          )}
        </div>
      </form>
      {!job.closed && (
        <section className="plate p-4" aria-label="A new tray or bin">
          <h2 className="mb-2 text-xl font-bold">A new tray, bin or bag</h2>
          <NewPlace />
        </section>
      )}
    </div>
  );
}

function Tick({
  code,
  checked = false,
  children,
}: {
  code: string;
  checked?: boolean;
  children: React.ReactNode;
}) {
  return (
    <label className="flex min-h-[46px] cursor-pointer items-center gap-3">
      <input type="checkbox" name="label" value={code} defaultChecked={checked} className="checkbox" />
      <span className="grow leading-tight">{children}</span>
      <code className="quiet text-sm">{code}</code>
    </label>
  );
}
