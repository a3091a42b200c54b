import { useState } from "react";
import { Choice } from "~/look/field";
import { parsePressure, pressureText, type PressureUnit } from "~core/quantity";
import type { Gauge } from "~core/reading";
import type { Conditions } from "./typed";

/** What belongs to every reading besides its figure; one line that opens. */
export function ConditionsLine({
  conditions,
  ways = [],
  airUnit,
  onChange,
}: {
  conditions: Conditions;
  /** What a figure that is no pack’s may be read with; none of a pack. */
  ways?: readonly Gauge[];
  /** The unit the book states its air pressure in. */
  airUnit: PressureUnit;
  onChange: (change: Partial<Conditions>) => void;
}) {
  const { method, state, air } = conditions;
  const [typedAir, setTypedAir] = useState<string | null>(null);
  const parsed = typedAir === null ? null : parsePressure(typedAir, airUnit);
  const airProblem = parsed && !parsed.ok ? `${parsed.problem}; ${parsed.remedy}` : "";
  const dial = method === "air and dial" || method === "hand and dial";
  const words = [
    method,
    method === "air and dial" && air ? pressureText(air, airUnit) : "",
    ...(state ? [state.soak, `facings ${state.facings}`, state.wave ? `wave ${state.wave}` : ""] : []),
  ];
  return (
    <details className="mt-1">
      <summary className="touch flex cursor-pointer items-center">
        <span>
          <span className="quiet">Read</span> <b>{words.filter(Boolean).join(" · ")}</b>
        </span>
      </summary>
      <div className="grid grid-cols-2 gap-x-4">
        {dial && (
          <Choice
            label="Lifted by"
            name="method"
            value={method}
            onChange={(value) => onChange({ method: value })}
            options={[
              { value: "air and dial", words: "Air" },
              { value: "hand and dial", words: "Hand" },
            ]}
          />
        )}
        {method === "air and dial" && (
          <div>
            <label htmlFor="air" className="stamp mb-1 block">
              Air
            </label>
            <input
              id="air"
              className={`input touch w-full ${airProblem ? "input-error" : ""}`}
              value={typedAir ?? (air ? pressureText(air, airUnit) : "")}
              onChange={(event) => {
                setTypedAir(event.target.value);
                const read = parsePressure(event.target.value, airUnit);
                if (read.ok) onChange({ air: read.pressure });
              }}
              aria-describedby="air-hint"
            />
            <p id="air-hint" className={`mb-2 text-sm ${airProblem ? "text-error font-semibold" : "quiet"}`}>
              {airProblem || "Regulated; hands off the piston’s path, eyes covered."}
            </p>
          </div>
        )}
        {ways.length > 1 && (
          <Choice
            label="Read with"
            name="gauge"
            value={method}
            onChange={(value) => onChange({ method: value })}
            options={ways.map((way) => ({ value: way, words: way }))}
          />
        )}
        {state && (
          <>
            <Choice
              label="Facings hold"
              name="soak"
              value={state.soak}
              onChange={(soak) => onChange({ state: { ...state, soak } })}
              options={[
                { value: "dry", words: "Dry" },
                { value: "soaked", words: "Soaked" },
              ]}
            />
            <Choice
              label="Facings are"
              name="facings"
              value={state.facings}
              onChange={(facings) => onChange({ state: { ...state, facings } })}
              options={[
                { value: "new", words: "New" },
                { value: "run-in", words: "Run in" },
              ]}
            />
            {state.wave && (
              <Choice
                label="Waved plate"
                name="wave"
                value={state.wave}
                onChange={(wave) => onChange({ state: { ...state, wave } })}
                options={[
                  { value: "free", words: "Free" },
                  { value: "flat", words: "Pressed flat" },
                ]}
              />
            )}
          </>
        )}
      </div>
    </details>
  );
}
