import { KEPT } from "~/offline/keys";
import { loadOrKept } from "~/offline/kept";
import { useState } from "react";
import type { Route } from "./+types/before";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { ask } from "~/look/ask";
import { Choice, Field } from "~/look/field";
import { services } from "~/server/context";
import {
  DEBRIS_KINDS,
  type DebrisKind,
  DEBRIS_AMOUNTS,
  DEBRIS_PLACES,
  FLUID_LOOKS,
  READ_OUT_FROM,
  wordsOf,
  FLUID_SMELLS,
  type DebrisPlace,
} from "~core/fact";
import { pointsAt } from "~core/diagnose";
import { Figures } from "./figures";
import { SayForm } from "~/say/say-form";

export const meta: Route.MetaFunction = ({ params }) => [
  { title: `Before opening ${params.number} · Yard Key` },
];

/** Whether a scan tool is at hand; the demo ships a pretended one. */
export const loader = ({ context }: Route.LoaderArgs) => ({
  scanTool: context.get(services).scanToolUrl !== "",
});

export const clientLoader = ({ serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.before, serverLoader, () => ({ scanTool: false }));

/** What is looked at, read off and read out before the unit is opened. */
export default function Before({ loaderData: { scanTool } }: Route.ComponentProps) {
  return (
    <div className="grid items-start gap-3 xl:grid-cols-2">
      <div className="grid gap-3">
        <Fluids />
        <Debris />
      </div>
      <div className="grid gap-3">
        <Figures />
        <ReadOuts scanTool={scanTool} />
      </div>
    </div>
  );
}

/** Each fluid of the unit: its own, and what runs in other rooms of it. */
function Fluids() {
  const { applied } = useJobView();
  const others = applied.present.fluid?.others ?? [];
  return (
    <>
      <Fluid name={others.length > 0 ? "Fluid of the transmission" : "Fluid"} />
      {others.map(({ id, name }) => (
        <Fluid key={id} of={id} name={`Fluid of the ${name}`} />
      ))}
    </>
  );
}

function Fluid({ of = "", name }: { of?: string; name: string }) {
  const { job } = useJobView();
  const fluid = job.fluids.get(of);
  return (
    <section className="plate p-4" aria-label={name}>
      <h2 className="text-xl font-bold">{name}</h2>
      {fluid && (
        <p className="mb-1 text-lg" data-fluid={of}>
          <b>{FLUID_LOOKS.words[fluid.body.look]}</b>, smells <b>{FLUID_SMELLS.words[fluid.body.smell]}</b>
          {fluid.body.note && `: ${fluid.body.note}`} <span className="quiet">({fluid.by})</span>
        </p>
      )}
      {!job.closed && (
        <SayForm kind="fluid" fixed={of ? { of } : {}} keep>
          {(problems) => (
            <>
              <Choice
                label="Looks"
                name="look"
                value={fluid?.body.look}
                problem={problems.look}
                options={wordsOf(FLUID_LOOKS).map(([value, words]) => ({ value, words }))}
              />
              <Choice
                label="Smells"
                name="smell"
                value={fluid?.body.smell}
                problem={problems.smell}
                options={wordsOf(FLUID_SMELLS).map(([value, words]) => ({ value, words }))}
              />
              <div className="flex items-end gap-3">
                <div className="grow">
                  <Field label="Note" name="note" placeholder="how much came out, what is in it" />
                </div>
                <button className="btn touch mb-3">Keep</button>
              </div>
            </>
          )}
        </SayForm>
      )}
    </section>
  );
}

const KIND_WORDS: Readonly<Record<DebrisKind, string>> = {
  fuzz: "Fuzz, grey paste",
  flakes: "Flakes, steel",
  chunks: "Chunks, steel",
  friction: "Friction material",
  brass: "Brass or copper",
  aluminium: "Aluminium",
};
const PLACE_WORDS: Readonly<Record<DebrisPlace, string>> = {
  pan: "Pan",
  magnet: "Magnet",
  filter: "Filter",
  cooler: "Cooler line",
  neighbour: "Neighbour: axle, transfer case",
};

function Debris() {
  const { job, applied } = useJobView();
  const say = useSay();
  const [where, setWhere] = useState<DebrisPlace>("pan");
  const debris = job.debris.map(({ body }) => body);
  const amountOf = (what: DebrisKind): string | undefined =>
    debris.find((one) => one.where === where && one.what === what)?.amount;
  return (
    <section className="plate p-4" aria-label="Debris">
      <h2 className="text-xl font-bold">Debris</h2>
      <div role="radiogroup" aria-label="Where it was found" className="my-2 flex flex-wrap gap-2">
        {DEBRIS_PLACES.codes.map((place) => (
          <button
            key={place}
            type="button"
            role="radio"
            aria-checked={where === place}
            className={`btn touch ${where === place ? "btn-primary" : ""}`}
            onClick={() => setWhere(place)}
          >
            {PLACE_WORDS[place]}
            {debris.some((one) => one.where === place && one.amount !== "none") && " ●"}
          </button>
        ))}
      </div>
      <table className="w-full">
        <tbody>
          {DEBRIS_KINDS.map((what) => {
            const amount = amountOf(what);
            return (
              <tr key={what} className="border-base-300 border-t" data-debris={what}>
                <th scope="row" className="py-1 pr-2 text-left leading-tight">
                  {KIND_WORDS[what]}
                  {amount && amount !== "none" && where !== "neighbour" && (
                    <span className="quiet block max-w-80 text-sm font-normal">
                      points at {pointsAt(applied.present, what)}
                    </span>
                  )}
                </th>
                <td className="py-1 text-right whitespace-nowrap">
                  {DEBRIS_AMOUNTS.codes.map((one) => (
                    <button
                      key={one}
                      type="button"
                      disabled={job.closed !== null}
                      aria-pressed={amount === one}
                      aria-label={`${KIND_WORDS[what]}: ${one}`}
                      className={`touch ml-1 cursor-pointer rounded border-2 px-2 ${amount === one ? "border-primary bg-primary text-primary-content" : "border-base-300"}`}
                      onClick={() => say({ kind: "debris", where, what, amount: one })}
                    >
                      {one}
                    </button>
                  ))}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

/** What the control unit knows, kept before the battery or the unit comes off. */
function ReadOuts({ scanTool }: { scanTool: boolean }) {
  const { applied, job, number } = useJobView();
  const say = useSay();
  const [away, setAway] = useState<string | null>(null);
  const wanted = applied.scoped.readOuts ?? [];
  const fetchOne = async (readOut: string): Promise<void> => {
    const answer = await ask<{ text: string }>(`/jobs/${number}/scan-tool/${readOut}`);
    setAway(answer ? null : readOut);
    if (answer) say({ kind: "read-out", readOut, text: answer.text, from: "scan-tool" });
  };
  return (
    <section className="plate p-4" aria-label="Read out">
      <h2 className="text-xl font-bold">Read out before it comes off</h2>
      {wanted.length === 0 && <p>The book names nothing to be read out.</p>}
      <ul>
        {wanted.map(({ id, what, why }) => {
          const kept = job.readOuts.find(({ body }) => body.readOut === id);
          return (
            <li key={id} className="border-base-300 border-t py-2" data-read-out={id}>
              <b className="text-lg first-letter:uppercase">{what}</b>
              <span className="quiet block text-sm">{why}</span>
              {kept && (
                <pre
                  className="bg-base-200 my-1 max-h-40 overflow-auto rounded p-2 text-sm whitespace-pre-wrap"
                  tabIndex={0}
                >
                  {kept.body.text}
                </pre>
              )}
              {kept && (
                <p className="quiet text-sm">{`${READ_OUT_FROM.words[kept.body.from]}, ${kept.by}`}</p>
              )}
              {!job.closed && (
                <div className="flex flex-wrap items-start gap-3">
                  {scanTool && (
                    <button type="button" className="btn touch mt-1" onClick={() => void fetchOne(id)}>
                      From the scan tool
                    </button>
                  )}
                  <details className="grow">
                    <summary className="touch quiet flex cursor-pointer items-center underline underline-offset-4">
                      Type or paste it
                    </summary>
                    <SayForm kind="read-out" fixed={{ readOut: id, from: "pasted" }}>
                      {(problems) => (
                        <>
                          <textarea
                            name="text"
                            rows={3}
                            aria-label={`${what}, typed or pasted`}
                            className="textarea w-full"
                          />
                          {problems.text && (
                            <p role="alert" className="text-error font-semibold">
                              {problems.text}
                            </p>
                          )}
                          <button className="btn touch mt-1">Keep</button>
                        </>
                      )}
                    </SayForm>
                  </details>
                </div>
              )}
              {away === id && (
                <p role="alert" className="text-error font-semibold">
                  The scan tool does not answer. Check its plug, or type what it shows.
                </p>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
