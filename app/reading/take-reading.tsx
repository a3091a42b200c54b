import { useState } from "react";
import { useInside } from "~/door/inside";
import type { Phase, ReadingBody } from "~core/fact";
import { isPackSheet, type ReadingSet, type Worksheet } from "~core/measure";
import { plausible } from "~core/pack";
import { pressureUnit, type LengthUnit, type Nm } from "~core/quantity";

import { question, type Reading, type Single } from "~core/reading";
import { ConditionsLine } from "./conditions";
import { Feeler } from "./feeler";
import type { FormAnswer } from "~/view/form-answer";
import { useFiguresFindTheirField, useKeys } from "~/look/use-keys";
import { linkGroups } from "./links";
import { Numbers } from "./numbers";
import { Doubt } from "./question";
import { soon } from "~/look/soon";
import { useJobAt } from "~/view/view";
import { useSay } from "~/say/use-say";
import { bodyOf, usualConditions, type Conditions } from "./typed";
import { TypedEntry } from "./typed-entry";

const GaugeDock = soon(() => import("./gauge-dock")).part("GaugeDock");

type Way = "gauge" | "type" | "feeler" | "numbers";
const WAYS: { way: Way; words: string; key: string }[] = [
  { way: "gauge", words: "Gauge", key: "g" },
  { way: "type", words: "Type", key: "t" },
  { way: "feeler", words: "Feeler", key: "f" },
  { way: "numbers", words: "Numbers", key: "n" },
];

interface Props {
  sheet: Worksheet;
  phase: Phase;
  set: ReadingSet;
  unit: LengthUnit;
  /** For the form that works before the script has loaded. */
  readingId: string;
  actionData: FormAnswer | undefined;
}

/** Where a reading gets in: by gauge, by typing or a gauge that types, by feeler blades, or by the numbers. */
export function TakeReading({ sheet, phase, set, unit, readingId, actionData }: Props) {
  const { gauge } = useInside();
  const { book } = useJobAt();
  const say = useSay();
  const ways = waysOf(sheet, gauge);
  const [way, setWay] = useState<Way>(byNumbers(sheet) ? "numbers" : "type");
  const [doubt, setDoubt] = useState<{ reading: Single; resolution: Nm } | null>(null);
  const [changed, setChanged] = useState<Partial<Conditions>>({});
  const usual = usualConditions(sheet, phase, set);
  const conditions: Conditions = {
    ...usual,
    ...changed,
    method: methodOf(sheet, way, changed.method ?? usual.method),
  };

  useFiguresFindTheirField();
  useKeys(Object.fromEntries(ways.map(({ key, way: one }) => [key, () => setWay(one)])));

  const store = (reading: Reading, more: Partial<ReadingBody> = {}): void => {
    say({ ...bodyOf(sheet, phase, conditions, reading, unit), ...more });
  };

  return (
    <section className="plate p-3" aria-label="Take a reading">
      <div className="mb-2 flex gap-1" role="group" aria-label="How it is read">
        {ways.map(({ way: one, words, key }) => (
          <button
            key={one}
            type="button"
            aria-pressed={one === way}
            className={`btn touch flex-auto gap-1 px-1 ${one === way ? "btn-secondary" : ""}`}
            onClick={() => setWay(one)}
          >
            {words} <kbd className="key">{key}</kbd>
          </button>
        ))}
      </div>
      {way === "type" && (
        <TypedEntry
          sheet={sheet}
          phase={phase}
          unit={unit}
          conditions={conditions}
          readingId={readingId}
          actionData={actionData}
          onStore={(body) => say(body)}
        />
      )}
      {way === "gauge" && (
        <GaugeDock
          sheet={sheet}
          phase={phase}
          unit={unit}
          onTake={(reading, resolution) => {
            const meanings = question(reading.value, "mm", plausible(sheet.applied));
            if (meanings) setDoubt({ reading, resolution });
            else store(reading, { resolution, unit: "mm" });
          }}
        />
      )}
      {way === "gauge" && doubt && (
        <Doubt
          reading={doubt.reading}
          unit={unit}
          onAnswer={(sure) => {
            if (sure) store(doubt.reading, { resolution: doubt.resolution, unit: "mm" });
            setDoubt(null);
          }}
        />
      )}
      {way === "feeler" && (
        <Feeler sheet={sheet} unit={unit} onStore={(reading, typed) => store(reading, { typed })} />
      )}
      {way === "numbers" && (
        <Numbers sheet={sheet} unit={unit} onStore={(reading, links) => store(reading, { links })} />
      )}
      <ConditionsLine
        airUnit={pressureUnit(sheet.applied.chain.read.air, book.unit.lengthUnit)}
        conditions={conditions}
        ways={isPackSheet(sheet) ? [] : sheet.applied.chain.read.with}
        onChange={(change) => setChanged({ ...changed, ...change })}
      />
    </section>
  );
}

/** Kinds of figures that nobody reads off a gauge: their links are measured, and what is in is known. */
const SUMMED: ReadonlySet<string> = new Set([
  "preload",
  "pinion depth",
  "rest position",
  "pulley alignment",
  "pump clearance",
]);
const byNumbers = (sheet: Worksheet): boolean =>
  !isPackSheet(sheet) && SUMMED.has(sheet.applied.chain.kind) && linkGroups(sheet.applied).length > 0;

/** How a figure can be read here: a pack in every way, another by what its book reads it with. */
function waysOf(sheet: Worksheet, gauge: boolean): typeof WAYS {
  if (isPackSheet(sheet)) return WAYS.filter(({ way }) => way !== "gauge" || gauge);
  const feeler = sheet.applied.chain.read.with.includes("feeler");
  const links = linkGroups(sheet.applied).length > 0;
  return WAYS.filter(
    ({ way }) => way === "type" || (way === "feeler" && feeler) || (way === "numbers" && links),
  );
}

function methodOf(sheet: Worksheet, way: Way, dial: Conditions["method"]): Conditions["method"] {
  if (!isPackSheet(sheet)) return way === "feeler" ? "feeler" : dial;
  if (way === "feeler") return "feeler";
  if (way === "numbers") return "by the numbers";
  return dial === "hand and dial" ? dial : "air and dial";
}
