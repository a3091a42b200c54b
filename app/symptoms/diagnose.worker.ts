import { Diagnostician, report, type Report, type Told, type Unit } from "~core/diagnose";

export interface Asked {
  n: number;
  /** Sent when it is another one than before. */
  unit?: Unit;
  told: Told[];
}
export interface Answered {
  n: number;
  report: Report;
}

let diagnostician: Diagnostician | null = null;

self.onmessage = ({ data: { n, unit, told } }: MessageEvent<Asked>) => {
  if (unit) diagnostician = new Diagnostician(unit);
  if (!diagnostician) return;
  self.postMessage({ n, report: report(diagnostician, told) } satisfies Answered);
};
