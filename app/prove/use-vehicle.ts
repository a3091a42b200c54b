import { useCallback, useEffect, useRef, useState } from "react";
import type { Told } from "~core/fact";
import { askVehicle } from "./ask-vehicle";

/** How the vehicle on the lift stands, as the scan tool tells it. */
export interface Vehicle {
  engine: "off" | "running";
  revs: number;
  lever: string;
  brake: "held" | "free";
  pedal: "untouched" | "pressed";
  /** °C. */
  fluid: number;
  plug: "in" | "out";
  planted: string;
  plants: string[];
  /** What is seen at the level plug. */
  seen: string;
  codes: string[];
  /** In P with the brake free: whether it stands; null while that is not tried. */
  stands: boolean | null;
  /** Pascals, where one was asked for. */
  pressure?: number;
  /** Turns a minute, where they were asked for. */
  speeds?: { input: number; output: number };
  /** The routine that runs, when it began by the vehicle’s clock, and how much of it has run: 0 to 1. */
  running?: { routine: string; from: number; share: number };
  /** The one that ran last, ended. */
  learned?: { routine: string; from: number; outcome: "done" | "failed"; before: string; after: string };
}

type Asked = Readonly<Record<string, unknown>>;

/** What was refused is asked anew after so long. */
const AGAIN_MS = 2_000;

/** What a procedure is held against, of what the vehicle says. */
export const toldOf = ({ fluid, revs, engine, lever, brake, pedal }: Vehicle): Told => ({
  fluid: `${fluid} °C`,
  revs: `${revs} rpm`,
  engine,
  lever,
  brake,
  pedal,
});

/**
 * The vehicle on a job’s lift, told as it changes while it is connected.
 *
 * @param connected whether anybody wants it: what is typed by hand needs none.
 */
export function useVehicle(
  number: number,
  connected: boolean,
): { vehicle: Vehicle | null; problem: string; ask: (asked: Asked) => Promise<Vehicle | null> } {
  const [vehicle, setVehicle] = useState<Vehicle | null>(null);
  const [problem, setProblem] = useState("");
  const [anew, setAnew] = useState(0);
  const before = useRef<Promise<unknown>>(Promise.resolve());
  const ask = useCallback(
    async (asked: Asked): Promise<Vehicle | null> => {
      // One after another: what is done at the vehicle reaches it in the order it was done.
      const answer = before.current.then(() => askVehicle(number, asked));
      before.current = answer;
      const told = await answer;
      setProblem(told ? "" : "The vehicle does not answer: type what is read off it.");
      setVehicle(told);
      return told;
    },
    [number],
  );
  useEffect(() => {
    if (!connected) return;
    const stream = new EventSource(`/jobs/${number}/vehicle`);
    let again: ReturnType<typeof setTimeout> | undefined;
    stream.onmessage = ({ data }: MessageEvent<string>) => {
      setProblem("");
      setVehicle(JSON.parse(data) as Vehicle);
    };
    // Between two streams it is asked once: away is only what does not answer that either.
    stream.onerror = () => {
      void ask({});
      if (stream.readyState === EventSource.CLOSED) again = setTimeout(() => setAnew((n) => n + 1), AGAIN_MS);
    };
    return () => {
      clearTimeout(again);
      stream.close();
    };
  }, [connected, ask, number, anew]);
  return { vehicle: connected ? vehicle : null, problem: connected ? problem : "", ask };
}
