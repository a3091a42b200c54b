import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { useSeconds } from "~/build/use-moment";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import type { Procedure } from "~core/book";
import type { Happened } from "~core/fact";
import { eventsOf, runOf } from "~core/procedure";
import type { Side } from "~store/here";
import type { Route } from "./+types/run";
import { FluidScale } from "./fluid-scale";
import { RunHead } from "./run-head";
import { RunNow } from "./run-now";
import { GONE_MS, useHere } from "./use-here";
import { useHolding } from "./use-holding";
import { useProving } from "./use-proving";
import { useSpoken } from "./use-spoken";
import { useTyped } from "./use-typed";
import { toldOf, useVehicle } from "./use-vehicle";
import { VehicleStrip } from "./vehicle-strip";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Prove ${params.number} · Yard Key` }];

const SIDES: readonly Side[] = ["seat", "lift", "both"];

/** One end of a procedure, read from two metres: in the seat, under the lift, or both by one person. */
export default function RunPage() {
  const { applied, number } = useJobView();
  const params = useParams();
  const procedure = applied.scoped.procedures?.find(({ id }) => id === params.procedure);
  if (!procedure)
    return (
      <p className="plate p-5 text-xl">
        The book has no such procedure at this depth.{" "}
        <Link to={`/jobs/${number}/prove`} className="link">
          To what is proven
        </Link>
      </p>
    );
  return <Run key={procedure.id} procedure={procedure} />;
}

function Run({ procedure }: { procedure: Procedure }) {
  const { job, number } = useJobView();
  const { made } = useProving();
  const say = useSay();
  const [search, setSearch] = useSearchParams();
  const side = SIDES.find((one) => one === search.get("as")) ?? "both";
  // In the address, as the end is: a page that is loaded anew is connected again.
  const connected = search.has("vehicle");
  const turnTo = (as: Side, vehicle: boolean): void =>
    setSearch({ as, ...(vehicle ? { vehicle: "on" } : {}) }, { replace: true, preventScrollReset: true });
  const { vehicle, problem, ask } = useVehicle(number, connected);
  const typed = useTyped(procedure.window?.from.unit ?? "°C");
  const told = vehicle ? toldOf(vehicle) : typed.told;
  const now = useSeconds(true);
  const run = runOf(procedure, eventsOf(job, procedure.id), told, now);
  const { other: heard, away } = useHere(number, procedure.id, job.closed ? null : side);
  // Whoever was gone before it began is not waited for.
  const begun = run.at === "going" ? (run.counted[0]?.at ?? now) : now;
  const other = heard?.gone && heard.heard < begun - GONE_MS ? null : heard;
  const mine = run.turn !== null && (side === "both" || run.turn.who === side);
  const tell = (did: Happened): void => {
    const turn = did === "begun" || did === "stopped" || did === "missed" ? "" : (run.turn?.id ?? "");
    say({ kind: "procedure", procedure: procedure.id, did, turn, as: side, senses: told, note: "" });
    typed.clear();
  };
  useHolding(run, mine && vehicle !== null && !job.closed, tell);
  const [speaks, setSpeaks] = useState(false);
  useSpoken(speaks && mine ? (run.turn?.say ?? "") : "");
  const first = made.proving.items.find(({ key }) => key === `procedure ${procedure.id}`)?.after ?? [];
  return (
    <div
      className="flex flex-col gap-3"
      data-run={run.run}
      data-run-at={run.at}
      data-due={run.turn?.id ?? ""}
      suppressHydrationWarning
    >
      <RunHead
        procedure={procedure}
        run={run}
        side={side}
        other={other}
        speaks={speaks}
        onSpeak={() => setSpeaks(!speaks)}
        onSide={(as) => turnTo(as, connected)}
        onStop={run.at === "going" && !job.closed ? () => tell("stopped") : undefined}
      />
      <FluidScale
        procedure={procedure}
        told={told}
        typed={connected ? null : typed}
        asksRevs={run.lines.some(({ of }) => of === "revs")}
      />
      <RunNow
        procedure={procedure}
        run={run}
        side={side}
        mine={mine}
        now={now}
        first={first}
        alone={
          other?.gone === true
            ? `${other.person} is not heard of any more: it waits. Alone, go on with Both.`
            : ""
        }
        away={away}
        byHand={vehicle === null}
        onTell={tell}
      />
      <VehicleStrip
        vehicle={vehicle}
        side={side}
        connected={connected}
        problem={problem}
        onConnect={(vehicle) => turnTo(side, vehicle)}
        onAsk={ask}
      />
    </div>
  );
}
