import { useJobView } from "~/view/view";
import type { Side } from "~store/here";
import type { Vehicle } from "./use-vehicle";

/** The vehicle on the lift: what can be done at it from here. A simulated one stands behind it; a real one would answer the same. */
export function VehicleStrip({
  vehicle,
  side,
  connected,
  problem,
  onConnect,
  onAsk,
}: {
  vehicle: Vehicle | null;
  side: Side;
  connected: boolean;
  problem: string;
  onConnect: (connected: boolean) => void;
  onAsk: (asked: Readonly<Record<string, unknown>>) => Promise<unknown>;
}) {
  const { applied } = useJobView();
  const control = (given: object): void => void onAsk({ control: given });
  const positions = applied.present.linkage?.positions ?? ["P", "R", "N", "D"];
  return (
    <section aria-label="Vehicle" className="plate flex flex-wrap items-center gap-2 px-4 py-2">
      <label className="flex items-center gap-2 font-semibold">
        <input
          type="checkbox"
          className="toggle"
          checked={connected}
          onChange={({ currentTarget }) => onConnect(currentTarget.checked)}
        />
        Vehicle connected (simulated)
      </label>
      {problem && (
        <p role="alert" className="text-error font-semibold">
          {problem}
        </p>
      )}
      {vehicle && side !== "lift" && (
        <>
          <button
            type="button"
            className="btn touch"
            aria-pressed={vehicle.engine === "running"}
            onClick={() => control({ engine: vehicle.engine === "running" ? "off" : "running" })}
          >
            Engine {vehicle.engine === "running" ? `${vehicle.revs} rpm` : "off"}
          </button>
          <button
            type="button"
            className="btn touch"
            aria-pressed={vehicle.brake === "held"}
            onClick={() => control({ brake: vehicle.brake === "held" ? "free" : "held" })}
          >
            Brake {vehicle.brake}
          </button>
          <div className="join" role="group" aria-label="Lever">
            {positions.map((lever) => (
              <button
                key={lever}
                type="button"
                className={`btn touch join-item ${vehicle.lever === lever ? "btn-secondary" : ""}`}
                aria-pressed={vehicle.lever === lever}
                onClick={() => control({ lever })}
              >
                {lever}
              </button>
            ))}
          </div>
        </>
      )}
      {vehicle && side !== "seat" && (
        <>
          <button
            type="button"
            className="btn touch"
            aria-pressed={vehicle.plug === "out"}
            onClick={() => control({ plug: vehicle.plug === "out" ? "in" : "out" })}
          >
            Plug {vehicle.plug}
          </button>
          <button type="button" className="btn touch" onClick={() => control({ pour: 0.3 })}>
            Pour 0.3 l
          </button>
          <span className="figure text-lg" data-seen={vehicle.seen}>
            {vehicle.seen === "closed"
              ? "closed"
              : vehicle.seen === "nothing"
                ? "nothing comes"
                : `it ${vehicle.seen}`}
          </span>
        </>
      )}
      {vehicle && vehicle.stands !== null && side !== "lift" && (
        <b className={vehicle.stands ? "" : "text-error"} data-stands={vehicle.stands}>
          in P, brake free: it {vehicle.stands ? "stands" : "rolls"}
        </b>
      )}
      {vehicle && vehicle.codes.length > 0 && (
        <span className="text-sm" data-codes={vehicle.codes.length}>
          Remembers: {vehicle.codes.join("; ")}
        </span>
      )}
      {vehicle && (
        <div className="ml-auto flex items-center gap-2 text-sm">
          <label className="flex items-center gap-2">
            planted
            <select
              className="select select-sm touch w-36"
              value={vehicle.planted}
              onChange={({ currentTarget }) => control({ planted: currentTarget.value })}
            >
              {vehicle.plants.map((one) => (
                <option key={one} value={one}>
                  {one.replaceAll("-", " ")}
                </option>
              ))}
            </select>
          </label>
          <button type="button" className="btn btn-sm touch" onClick={() => control({ warm: 5 })}>
            +5 °C
          </button>
          <button type="button" className="btn btn-sm touch" onClick={() => control({ fluid: 22 })}>
            Cooled
          </button>
        </div>
      )}
    </section>
  );
}
