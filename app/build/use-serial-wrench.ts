import { useEffect, useSyncExternalStore } from "react";
import { BAUD, browserPort, serialLines } from "~/gauge/serial";
import type { Measure } from "~core/quantity";
import { readTorque } from "./torque-line";

/** The wrench on this machine’s serial line: connected once, for every face after it. */
class SerialWrench {
  private stop: (() => Promise<void>) | null = null;
  private readonly told = new Set<() => void>();
  /** Who hears the next pull: the face that is in sight. */
  hear: ((line: string) => void) | null = null;
  fail: ((why: string) => void) | null = null;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.told.add(listener);
    return () => this.told.delete(listener);
  };
  readonly isListening = (): boolean => this.stop !== null;

  readonly connect = async (): Promise<void> => {
    this.fail?.("");
    const port = browserPort();
    if (!port)
      return this.fail?.("This browser reads no serial line; a wrench that types works in every browser.");
    try {
      const stop = await serialLines(
        port,
        BAUD,
        (line) => this.hear?.(line),
        () => {
          this.end();
          this.fail?.("The wrench’s line ended. Check the plug and connect again.");
        },
      );
      this.stop = stop;
      for (const listener of this.told) listener();
    } catch {
      this.fail?.("No wrench was connected. Plug it in, connect again and choose its port.");
    }
  };

  readonly letGo = (): void => {
    void this.stop?.();
    this.end();
  };

  private end(): void {
    this.stop = null;
    for (const listener of this.told) listener();
  }
}

const wrench = new SerialWrench();

/** A wrench that sends a line for each pull; the pull counts for the place that is next when it comes. */
export function useSerialWrench(
  unit: string,
  hear: (read: Measure<"torque">) => void,
  fail: (why: string) => void,
) {
  const listening = useSyncExternalStore(wrench.subscribe, wrench.isListening, () => false);
  useEffect(() => {
    wrench.fail = fail;
    wrench.hear = (line) => {
      const read = readTorque(line, unit);
      if (read) hear(read);
    };
  });
  useEffect(
    () => () => {
      wrench.hear = null;
      wrench.fail = null;
    },
    [],
  );
  return { listening, connect: wrench.connect, letGo: wrench.letGo };
}
