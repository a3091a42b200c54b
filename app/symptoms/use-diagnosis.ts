import { useEffect, useRef, useState } from "react";
import type { Book } from "~core/book";
import type { Report, Told, Unit } from "~core/diagnose";
import type { Answered, Asked } from "./diagnose.worker";

const partOf = (unit: Book): Unit => {
  const { unit: what, members, gearSets, elements, train, ranges, stations, airChecks, pressureTaps } = unit;
  return { unit: what, members, gearSets, elements, train, ranges, stations, airChecks, pressureTaps };
};

/** What is told → suspects, worked out beside the page; null until the first answer is there. */
export function useDiagnosis(unit: Book, told: readonly Told[]): Report | null {
  const [report, setReport] = useState<Report | null>(null);
  const worker = useRef<Worker | null>(null);
  const known = useRef<Book | null>(null);
  const asked = useRef(0);
  useEffect(() => {
    const started = new Worker(new URL("./diagnose.worker.ts", import.meta.url), { type: "module" });
    // An answer that was overtaken by a later question is dropped.
    started.onmessage = ({ data }: MessageEvent<Answered>) =>
      data.n === asked.current && setReport(data.report);
    worker.current = started;
    known.current = null;
    return () => started.terminate();
  }, []);
  const key = JSON.stringify(told);
  useEffect(() => {
    const part = known.current === unit ? undefined : partOf(unit);
    known.current = unit;
    worker.current?.postMessage({
      n: ++asked.current,
      ...(part ? { unit: part } : {}),
      told: JSON.parse(key) as Told[],
    } satisfies Asked);
  }, [unit, key]);
  return report;
}
