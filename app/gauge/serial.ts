import { parseLength, type LengthUnit } from "~core/quantity";
import type { Source, Told } from "./source";

/** What is used of a serial port, the browser’s or a simulated one. */
export interface Port {
  open: (options: { baudRate: number }) => Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
  close: () => Promise<void>;
}

/** What an instrument that sends lines is most often set to. */
export const BAUD = 9_600;

/** A line longer than this is no reading. */
const LONGEST = 200;

/**
 * A reading from a line of a gauge: the last figure in it with the unit after it, `+12.345 mm`, `0.4725in`, or a bare figure in the gauge’s own unit.
 *
 * @returns null where the line holds no length: a greeting, an error, a checksum alone.
 */
export function readLine(line: string, unit: LengthUnit): Told | null {
  const found = [...line.matchAll(/([+\-−]?\s*\d*[.,]?\d+)\s*(mm|in|")?/gi)].at(-1);
  if (!found) return null;
  const [, figure = "", own] = found;
  const parsed = parseLength(`${figure.replace(/\s|^\+/g, "")}${own ? ` ${own.toLowerCase()}` : ""}`, unit);
  return parsed.ok ? { value: parsed.length } : null;
}

/**
 * A gauge on a serial port that sends a line for each reading.
 *
 * @param port asked of the person, or simulated.
 * @param unit what a figure without a unit is in.
 */
export function serialSource(port: () => Promise<Port>, baudRate: number, unit: LengthUnit): Source {
  return {
    name: "serial gauge",
    open: (hear, lost) =>
      serialLines(
        port,
        baudRate,
        (line) => {
          const told = readLine(line, unit);
          if (told) hear(told);
        },
        (how) =>
          lost(
            how === "unplugged"
              ? "The gauge was unplugged. Plug it in and connect again."
              : "The gauge’s line broke. Check the plug and connect again.",
          ),
      ),
  };
}

/**
 * Listens to whatever sends lines on a serial port: a gauge, a wrench.
 *
 * @param lost told once when it ends by itself.
 * @returns what ends it.
 */
export async function serialLines(
  port: () => Promise<Port>,
  baudRate: number,
  hear: (line: string) => void,
  lost: (how: "unplugged" | "broken") => void,
): Promise<() => Promise<void>> {
  const opened = await port();
  await opened.open({ baudRate });
  const reader = opened.readable?.getReader();
  if (!reader) throw new Error("The port cannot be read.");
  let ended = false;
  void follow(reader, hear)
    .then(() => ended || lost("unplugged"))
    .catch(() => ended || lost("broken"));
  return async () => {
    ended = true;
    await reader.cancel().catch(() => {});
    reader.releaseLock();
    await opened.close().catch(() => {});
  };
}

/** The browser’s way to ask for a serial port; null where it has none. */
export function browserPort(): (() => Promise<Port>) | null {
  const { serial } = navigator as unknown as { serial?: { requestPort: () => Promise<Port> } };
  return serial ? () => serial.requestPort() : null;
}

async function follow(
  reader: ReadableStreamDefaultReader<Uint8Array>,
  hear: (line: string) => void,
): Promise<void> {
  const decoder = new TextDecoder();
  let rest = "";
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    const lines = (rest + decoder.decode(value, { stream: true })).split(/[\r\n]+/);
    rest = (lines.pop() ?? "").slice(-LONGEST);
    for (const line of lines) hear(line);
  }
}
