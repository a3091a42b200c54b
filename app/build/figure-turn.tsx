import { SayForm } from "~/say/say-form";
import { useJobView } from "~/view/view";
import type { Asked } from "~core/build";
import { itemsOf } from "~core/measure";
import type { Measurement } from "~core/book";
import { pascalsOf, parseMeasure } from "~core/quantity";
import { askVehicle } from "~/prove/ask-vehicle";
import { useState } from "react";

/** A figure that is no series of readings, typed where it is asked; of several things one after the other. */
export function FigureTurn({ turn, measurement }: { turn: Asked; measurement: Measurement }) {
  const { applied, job } = useJobView();
  const items = itemsOf(measurement, applied).map(({ name }) => name);
  const open = items.filter((item) => !job.figure("measurement", measurement.id, "built", item));
  const item = open[0] ?? items.at(-1);
  const [text, setText] = useState("");
  const of = {
    of: "measurement",
    id: measurement.id,
    phase: "built",
    ...(item === undefined ? {} : { item }),
  };
  return (
    <SayForm
      key={item ?? ""}
      kind="figure"
      fixed={of}
      className="mt-3 flex flex-wrap items-end gap-2"
      onSaid={() => setText("")}
    >
      {(problems) => (
        <>
          <label className="flex items-center gap-3 text-2xl">
            {item ?? "It reads"}
            <input
              value={text}
              onChange={({ currentTarget }) => setText(currentTarget.value)}
              name="text"
              autoComplete="off"
              className={`input touch figure h-16 w-44 text-3xl ${problems.text ? "input-error" : ""}`}
              aria-label={item ?? turn.name}
              aria-invalid={problems.text ? true : undefined}
            />
          </label>
          <button className="btn btn-primary btn-lg touch text-xl">Keep it</button>
          {measurement.kind === "pressure" && <Gauge measurement={measurement} onRead={setText} />}
          {problems.text && (
            <p role="alert" className="text-error w-full text-lg font-semibold">
              {problems.text}
            </p>
          )}
        </>
      )}
    </SayForm>
  );
}

/** The gauge on the tap of the simulated vehicle; it fills the field, and whoever stands there keeps it. */
function Gauge({
  measurement: { min, max },
  onRead,
}: {
  measurement: Measurement;
  onRead: (text: string) => void;
}) {
  const { number } = useJobView();
  const [problem, setProblem] = useState("");
  const limits = [min ?? max ?? "", max ?? min ?? ""].map((text) => parseMeasure(text, "pressure"));
  const [low, high] = limits;
  if (!low?.ok || !high?.ok) return null;
  const { unit } = low.measure;
  const per = pascalsOf({ quantity: "pressure", unit, figure: "1" });
  const ask = async (): Promise<void> => {
    const told = await askVehicle(number, {
      pressure: { low: pascalsOf(low.measure), high: pascalsOf(high.measure) },
    });
    setProblem(
      told?.pressure === undefined ? "The simulated gauge does not answer; type what yours says." : "",
    );
    if (told?.pressure !== undefined)
      onRead(`${(told.pressure / per).toFixed(unit === "psi" || unit === "kPa" ? 0 : 2)} ${unit}`);
  };
  return (
    <>
      <button type="button" className="btn touch" onClick={() => void ask()}>
        Simulated gauge
      </button>
      {problem && (
        <p role="alert" className="text-error w-full font-semibold">
          {problem}
        </p>
      )}
    </>
  );
}
