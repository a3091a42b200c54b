import { useCallback, useEffect, useState } from "react";
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
  /** Pascals, where one was asked for. */
  pressure?: number;
  learned?: { outcome: "done" | "failed"; before: string; after: string };
}

type Asked = Readonly<Record<string, unknown>>;

const EVERY_MS = 1_000;

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
 * The vehicle on a job’s lift, looked at every second while it is connected.
 *
 * @param connected whether anybody wants it: what is typed by hand needs none.
 */
export function useVehicle(
  number: number,
  connected: boolean,
): { vehicle: Vehicle | null; problem: string; ask: (asked: Asked) => Promise<Vehicle | null> } {
  const [vehicle, setVehicle] = useState<Vehicle | null>(null);
  const [problem, setProblem] = useState("");
  const ask = useCallback(
    async (asked: Asked): Promise<Vehicle | null> => {
      const told = await askVehicle(number, asked);
      setProblem(told ? "" : "The vehicle does not answer: type what is read off it.");
      setVehicle(told);
      return told;
    },
    [number],
  );
  useEffect(() => {
    if (!connected) return;
    const first = setTimeout(() => void ask({}), 0);
    const each = setInterval(() => void ask({}), EVERY_MS);
    return () => {
      clearTimeout(first);
      clearInterval(each);
    };
  }, [connected, ask]);
  return { vehicle: connected ? vehicle : null, problem: connected ? problem : "", ask };
}
