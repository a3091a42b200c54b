import { useEffect, useRef, useState } from "react";
import { Large } from "~/build/large";
import { SayForm } from "~/say/say-form";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import { linesOf } from "~core/procedure";
import { relearnsOf, type ProvingItem } from "~core/prove";
import { dispositions } from "~core/inspect";
import { houseOf, ruleOf } from "~core/measure";
import { useInside } from "~/door/inside";
import { Lines } from "./lines";
import { ProvePanel } from "./panel";
import { toldOf, useVehicle } from "./use-vehicle";
import { VehicleStrip } from "./vehicle-strip";

/** A routine by which the control unit learns anew: why it is called for, what must be so, what was learned. */
export function RelearnPanel({ item }: { item: ProvingItem }) {
  const { applied, job, number } = useJobView();
  const { house } = useInside();
  const say = useSay();
  const [connected, setConnected] = useState(false);
  const { vehicle, problem, ask } = useVehicle(number, connected);
  const states = dispositions(job, applied, houseOf(job, house), ruleOf(job, house));
  const all = relearnsOf(job, applied, states);
  const found = all.find(({ relearn }) => relearn.id === item.subject);
  // Who began it here keeps how it ended, once: of this run, not of one before that the vehicle still tells of.
  const begun = useRef<number | null>(null);
  const ended = vehicle?.learned?.routine === item.subject ? vehicle.learned : null;
  useEffect(() => {
    if (!ended || ended.from !== begun.current) return;
    begun.current = null;
    const { outcome, before, after } = ended;
    say({ kind: "relearned", relearn: item.subject, note: "", outcome, before, after });
  }, [ended, item.subject, say]);
  if (!found) return null;
  const { relearn, calls, fact } = found;
  const lines = linesOf(relearn.gate, null, vehicle ? toldOf(vehicle) : {});
  const early = item.at !== "done" && item.after.length > 0;
  const unmet = lines.some(({ is }) => is === "unmet");
  const run = async (): Promise<void> => {
    begun.current = (await ask({ routine: relearn.id }))?.running?.from ?? null;
  };
  const running = vehicle?.running?.routine === relearn.id ? vehicle.running : null;
  const not = all.filter((one) => one.calls.length === 0);
  return (
    <ProvePanel item={item} leftOut="It is left out: a lead signs">
      <p className="mt-2 text-lg">
        <span className="stamp quiet mr-2">Because of</span>
        {calls.join("; ")}
      </p>
      {relearn.leftOut && (
        <p className="text-lg">
          <span className="stamp quiet mr-2">Left out</span>
          {relearn.leftOut}
        </p>
      )}
      <div className="border-primary mt-3 rounded border-4 p-4">
        <span className="stamp quiet">
          {relearn.drives ? "Driven" : "Run it"}
          {relearn.minutes !== undefined && `, about ${relearn.minutes} minutes`}
        </span>
        <Large>{relearn.needs.join(" · ")}</Large>
        <Lines lines={lines} />
        {problem && (
          <p role="alert" className="text-error font-semibold">
            {problem}
          </p>
        )}
        <div className="mt-3 flex flex-wrap gap-2">
          {connected && vehicle ? (
            <button
              type="button"
              className="btn btn-primary btn-lg touch text-xl"
              disabled={unmet || early || vehicle.running !== undefined}
              onClick={() => void run()}
            >
              {running
                ? `Runs: ${Math.round(running.share * 100)} %, hands off`
                : fact?.body.outcome === "failed"
                  ? "Run it once more"
                  : "Run it on the vehicle"}
            </button>
          ) : (
            <button type="button" className="btn btn-lg touch" onClick={() => setConnected(true)}>
              Connect the vehicle (simulated)
            </button>
          )}
          <SayForm kind="relearned" fixed={{ relearn: relearn.id }} className="flex gap-2">
            {() => (
              <>
                <button name="outcome" value="done" className="btn btn-lg touch" disabled={early}>
                  It is learned
                </button>
                <button name="outcome" value="failed" className="btn btn-lg touch">
                  It was not
                </button>
              </>
            )}
          </SayForm>
        </div>
        {running && (
          <progress
            className="progress progress-primary mt-3 h-4 w-full"
            value={running.share}
            max={1}
            aria-label="How far it has run"
          />
        )}
        {early && <p className="mt-2 text-lg font-semibold">Not before what comes first is done.</p>}
        {unmet && <p className="mt-2 text-lg font-semibold">Not before everything above is so.</p>}
        {fact && (fact.body.before || fact.body.after) && (
          <p className="mt-3 text-lg" data-learned={fact.body.outcome}>
            Learned before <b className="figure">{fact.body.before || "nothing"}</b>, now{" "}
            <b className="figure">{fact.body.after || "nothing"}</b>
          </p>
        )}
      </div>
      {connected && (
        <div className="mt-3">
          <VehicleStrip
            vehicle={vehicle}
            side="seat"
            connected={connected}
            problem=""
            onConnect={setConnected}
            onAsk={ask}
          />
        </div>
      )}
      {not.length > 0 && (
        <details className="mt-3">
          <summary className="touch flex cursor-pointer items-center font-semibold underline underline-offset-4">
            {not.length} not to be run on this unit, and why
          </summary>
          <ul>
            {not.map(({ relearn: { id, name }, not: why }) => (
              <li key={id} className="border-base-300 border-t py-1" data-not-run={id}>
                <b>{name}</b>: {why || "nothing of this job calls for it"}
              </li>
            ))}
          </ul>
        </details>
      )}
    </ProvePanel>
  );
}
