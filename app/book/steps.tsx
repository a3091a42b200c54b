import { useState } from "react";
import { Link, useLocation } from "react-router";
import { Facts } from "~/look/facts";
import type { Step } from "~core/book";
import { useBookView } from "./book";

/** Taking down and building up, in order, for this version and depth. */
export default function StepsPage() {
  const { applied } = useBookView();
  const [phase, setPhase] = useState<"teardown" | "build">("teardown");
  const steps = applied.scoped[phase] ?? [];
  const all = applied.present[phase]?.length ?? 0;
  return (
    <section className="plate p-5">
      <div className="mb-3 flex flex-wrap items-center gap-2" role="group" aria-label="Which steps">
        {(["teardown", "build"] as const).map((value) => (
          <button
            key={value}
            type="button"
            aria-pressed={phase === value}
            className={`btn touch ${phase === value ? "btn-secondary" : "no-print"}`}
            onClick={() => setPhase(value)}
          >
            {value === "teardown" ? "Taking down" : "Building up"}
          </button>
        ))}
        <span className="quiet">
          {steps.length} of {all} steps at this depth
        </span>
      </div>
      <ol>
        {steps.map((step, i) => (
          <StepLine key={step.id} step={step} n={i + 1} />
        ))}
      </ol>
    </section>
  );
}

function StepLine({ step, n }: { step: Step; n: number }) {
  const { applied } = useBookView();
  const { search } = useLocation();
  const { present } = applied;
  const named = (
    list: readonly { id: string; name: string }[] | undefined,
    ids: readonly string[] = [],
    // What only another version has is not done here.
  ): string[] => ids.flatMap((id) => list?.find((one) => one.id === id)?.name ?? []);
  const caution = present.cautions?.find(({ id }) => id === step.caution)?.text;
  const lines: [string, string][] = [
    ["Tools", named(present.tools, step.tools).join(", ")],
    ["Lies", step.lies ?? ""],
    ["Way round", step.round ?? ""],
    ["Pry", step.pry ?? ""],
    ["Check", step.check?.map(({ what }) => what).join("; ") ?? ""],
    ["Leave for now", named(present.parts, step.leave).join(", ")],
    ["Record", step.record?.map(({ what }) => what).join("; ") ?? ""],
    [
      "Measure",
      [...named(present.chains, step.chains), ...named(present.measurements, step.measurements)].join(", "),
    ],
    ["Air check", step.airChecks?.map((id) => id.toUpperCase()).join(", ") ?? ""],
  ];
  const parts = named(present.parts, step.parts);
  return (
    <li
      id={`step-${step.id}`}
      className="border-base-300 grid grid-cols-[3rem_minmax(0,5fr)_minmax(0,6fr)] gap-4 border-t py-3 break-inside-avoid"
    >
      <span className="text-2xl font-bold">{n}</span>
      <div>
        <h3 className="text-xl leading-tight font-semibold">{step.name}</h3>
        {step.how && <p>{step.how}</p>}
        {step.onlyIf && (
          <p className="font-semibold">
            Only if the {named(present.parts, [step.onlyIf.part])} is: {step.onlyIf.is}
          </p>
        )}
        {caution && (
          <p className="border-warning mt-1 border-l-4 pl-3">
            <b>Caution.</b> {caution}
          </p>
        )}
        {step.fasteners && (
          <p className="mt-1">
            {step.fasteners.map((id) => (
              <Link
                key={id}
                to={`../fasteners${search}#fastener-${id}`}
                className="mr-3 underline underline-offset-4"
              >
                {named(present.fasteners, [id])}
              </Link>
            ))}
          </p>
        )}
      </div>
      <div>
        <Facts rows={lines} />
        {parts.length > 0 && <p className="quiet mt-1 text-sm">{parts.join(", ")}</p>}
      </div>
    </li>
  );
}
