import { describe, expect, it, test } from "@jest/globals";
import { readLine, serialSource, type Port } from "./serial";
import { toldText, type Told } from "./source";

describe("a line of a gauge", () => {
  test.each<[line: string, unit: "mm" | "in", nanometres: number | null]>([
    ["0.425", "mm", 425_000],
    ["+12.345 mm", "in", 12_345_000],
    ["0.4725in", "mm", 12_001_500],
    ['.0170"', "mm", 431_800],
    ["-0.003", "mm", -3_000],
    ["1 0,31 mm", "mm", 310_000],
    ["D01: 44.062mm", "mm", 44_062_000],
    ["0.5", "in", 12_700_000],
    ["ready", "mm", null],
    ["", "mm", null],
  ])("“%s”, in %s by itself", (line, unit, nanometres) => {
    expect(readLine(line, unit)).toEqual(nanometres === null ? null : { value: nanometres });
  });
});

/** A port whose other end is held here. */
function simulatedPort(): { port: Port; send: (text: string) => void; unplug: () => void; state: string[] } {
  const state: string[] = [];
  let line: ReadableStreamDefaultController<Uint8Array> | undefined;
  const port = {
    readable: null as ReadableStream<Uint8Array> | null,
    open: ({ baudRate }: { baudRate: number }) => {
      state.push(`open ${baudRate}`);
      port.readable = new ReadableStream({ start: (to) => void (line = to) });
      return Promise.resolve();
    },
    close: () => {
      state.push("closed");
      return Promise.resolve();
    },
  };
  const send = (text: string): void => line?.enqueue(new TextEncoder().encode(text));
  return { port, send, unplug: () => line?.close(), state };
}
const soon = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 5));

describe("a serial gauge", () => {
  it("tells each line as one reading, however the wire cuts it", async () => {
    const { port, send, state } = simulatedPort();
    const told: Told[] = [];
    const end = await serialSource(() => Promise.resolve(port), 9_600, "mm").open(
      (one) => told.push(one),
      () => {},
    );
    for (const part of ["hel", "lo\r\n0.4", "2", "5 mm\r\n0.43 mm\r\n", "0.44"]) {
      send(part);
      await soon();
    }
    expect(told).toEqual([{ value: 425_000 }, { value: 430_000 }]);
    send("\n");
    await soon();
    expect(told).toHaveLength(3);
    await end();
    expect(state).toEqual(["open 9600", "closed"]);
  });

  it("says when it is unplugged, and nothing when it is let go", async () => {
    const lost: string[] = [];
    const one = simulatedPort();
    await serialSource(() => Promise.resolve(one.port), 9_600, "mm").open(
      () => {},
      (why) => lost.push(why),
    );
    one.unplug();
    await soon();
    expect(lost).toEqual([expect.stringContaining("unplugged")]);
    const other = simulatedPort();
    const end = await serialSource(() => Promise.resolve(other.port), 9_600, "mm").open(
      () => {},
      (why) => lost.push(why),
    );
    await end();
    await soon();
    expect(lost).toHaveLength(1);
  });

  it("fails where there is no port to be had", async () => {
    const refused = serialSource(() => Promise.reject(new Error("none")), 9_600, "mm");
    await expect(
      refused.open(
        () => {},
        () => {},
      ),
    ).rejects.toThrow("none");
  });
});

test.each<[told: Told, unit: "mm" | "in", text: string]>([
  [{ value: 425_000 as never }, "mm", "0.425"],
  [{ value: 431_800 as never }, "in", "0.017"],
  // Four digits of an inch are no whole step of a millimetre: it stays what the gauge said.
  [{ value: 309_880 as never }, "mm", "0.0122 in"],
  [{ value: 312_345 as never }, "in", "312.345 µm"],
  [{ passes: 400_000 as never, refuses: 450_000 as never }, "mm", "0.40/0.45"],
  [{ passes: null, refuses: 20_000 as never }, "mm", "/0.02"],
])("%j in %s is typed as %s", (told, unit, text) => {
  expect(toldText(told, unit)).toBe(text);
});
