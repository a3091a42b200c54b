import { useEffect, useState } from "react";
import { Field } from "~/look/field";
import {
  compareMeasures,
  measureText,
  parseLength,
  parseMeasure,
  unitFor,
  type Measure,
  type Nm,
} from "~core/quantity";
import type { UnitSystem } from "~core/book";
import { wrenchSetting } from "~core/torque";

/** The wrench in hand as it is typed: from grip to square, an extension in line, the least and most it is made for. */
interface Typed {
  length: string;
  extension: string;
  least: string;
  most: string;
}

const NONE: Typed = { length: "", extension: "", least: "", most: "" };
const KEPT = "wrench-arm";

/** The arm a torque is pulled with. */
export interface Arm {
  length: Nm;
  extension: Nm;
}

/** The wrench in hand, kept on this machine: whoever comes back to the face has the same one. */
export function useArm(unit: UnitSystem) {
  const [typed, setTyped] = useState(NONE);
  useEffect(() => {
    const of = (key: keyof Typed): string => localStorage.getItem(`${KEPT}-${key}`) ?? "";
    queueMicrotask(() =>
      setTyped({ length: of("length"), extension: of("extension"), least: of("least"), most: of("most") }),
    );
  }, []);
  const set = (key: keyof Typed, value: string): void => {
    localStorage.setItem(`${KEPT}-${key}`, value);
    setTyped((before) => ({ ...before, [key]: value }));
  };
  const [length, extension] = [parseLength(typed.length, unit), parseLength(typed.extension, unit)];
  const arm: Arm | null =
    length.ok && extension.ok && length.length > 0 && extension.length > 0
      ? { length: length.length, extension: extension.length }
      : null;
  /** What it is set to for a torque at the bolt: less with an extension in line. */
  const setting = (torque: Measure<"torque">): Measure<"torque"> =>
    arm ? wrenchSetting(torque, arm.length, arm.extension) : torque;
  return { typed, set, arm, setting };
}

/** What to set the wrench to with an extension in line, and whether it is the wrench for it. */
export function WrenchArm({
  torque,
  unit,
  held: { typed, set, arm, setting: settingOf },
}: {
  torque: Measure<"torque">;
  unit: UnitSystem;
  held: ReturnType<typeof useArm>;
}) {
  const inUnit = unitFor(torque, unit);
  const setting = settingOf(torque);
  const limit = (text: string): Measure<"torque"> | null => {
    const read = parseMeasure(text, "torque", inUnit);
    return read.ok ? read.measure : null;
  };
  const [least, most] = [limit(typed.least), limit(typed.most)];
  const problem = (key: keyof Typed, ok: boolean, like: string): string | undefined =>
    typed[key] !== "" && !ok ? `write ${like}` : undefined;
  const isLength = (text: string): boolean => parseLength(text, unit).ok;
  return (
    <details className="no-print mt-2" data-arm={arm !== null}>
      <summary className="touch flex cursor-pointer items-center font-semibold underline underline-offset-4">
        {arm
          ? `Set ${measureText(setting, inUnit)}: with an extension in line`
          : "Extension, range of the wrench"}
      </summary>
      <div className="grid grid-cols-2 gap-2">
        <Field
          label="Wrench, grip to square"
          value={typed.length}
          onChange={(e) => set("length", e.target.value)}
          problem={
            problem("length", isLength(typed.length), "a length such as 320 mm") ??
            (typed.length === "" && typed.extension !== ""
              ? "it decides what an extension makes of it"
              : undefined)
          }
        />
        <Field
          label="Extension in line"
          value={typed.extension}
          onChange={(e) => set("extension", e.target.value)}
          problem={problem("extension", isLength(typed.extension), "a length such as 60 mm")}
        />
        <Field
          label="Least it is made for"
          value={typed.least}
          onChange={(e) => set("least", e.target.value)}
          problem={problem("least", least !== null, `a torque such as 5 ${inUnit}`)}
        />
        <Field
          label="Most"
          value={typed.most}
          onChange={(e) => set("most", e.target.value)}
          problem={problem("most", most !== null, `a torque such as 60 ${inUnit}`)}
        />
      </div>
      {arm && (
        <p role="status" className="text-lg">
          Set <b className="figure">{measureText(setting, inUnit)}</b>: {measureText(torque, inUnit)} · L ÷ (L
          + E)
        </p>
      )}
      {least && compareMeasures(setting, least) < 0 && (
        <p role="alert" className="text-error text-lg font-semibold">
          Below what this wrench is made for: take a smaller one.
        </p>
      )}
      {most && compareMeasures(setting, most) > 0 && (
        <p role="alert" className="text-error text-lg font-semibold">
          Beyond what this wrench is made for: take a larger one.
        </p>
      )}
    </details>
  );
}
