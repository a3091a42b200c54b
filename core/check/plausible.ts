import type { Book, Chain } from "../book";
import {
  baseOf,
  compareMeasures,
  lengthText,
  measureOf,
  measureText,
  toNumber,
  type Measure,
  type Nm,
} from "../quantity";
import type { Check, Say } from "./check";

/** The most that is found of a thing on any bench, in millimetres, generous: what lies above is a slip of the pen and not an odd unit. */
const MOST_RESULT: Readonly<Record<Chain["kind"], number>> = {
  "pack clearance": 8,
  "end play": 6,
  "bushing clearance": 0.5,
  "pump clearance": 1,
  "side clearance": 1.5,
  "end gap": 5,
  preload: 2,
  "pinion depth": 5,
  backlash: 1.5,
  "servo travel": 20,
  "rest position": 60,
  "pulley alignment": 3,
  "converter depth": 80,
  "installed depth": 80,
  "wear gap": 20,
};
const MOST_PLATE = 25_000_000;
const MOST_BOLT = 400_000_000;
const MOST_TURN = measureOf("270 °", "angle");
const MOST_FILL = measureOf("60 l", "volume");
const HOTTEST = measureOf("150 °C", "temperature");
/** Above it a seal is blown out of its bore and not tried. */
const MOST_AIR = measureOf("8 bar", "pressure");

const CORRECT = "correct the figure or its unit";

/** Sizes that nothing on a bench has. */
export const plausible: Check = {
  reads: ["unit", "packs", "chains", "fasteners", "airChecks", "fluid"],
  check(book, _conditions, say) {
    const show = (length: number): string => lengthText(length as Nm, book.unit.lengthUnit);
    const above = (measure: Measure | undefined, most: Measure, path: string, what: string): void => {
      if (measure && compareMeasures(measure, most) > 0)
        say(path, `${measureText(measure)} ${what}; the most here is ${measureText(most)}`, CORRECT);
    };
    book.packs.forEach(({ stack }, i) =>
      stack.forEach(({ thickness }, j) => {
        if (thickness !== undefined && thickness > MOST_PLATE)
          say(`packs[${i}].stack[${j}].thickness`, `no plate is ${show(thickness)} thick`, CORRECT);
      }),
    );
    book.chains.forEach(({ kind, spec }, i) =>
      spec.forEach(({ max }, s) => {
        if (max !== undefined && max > MOST_RESULT[kind] * 1_000_000)
          say(
            `chains[${i}].spec${spec.length > 1 ? `[${s}]` : ""}.max`,
            `no ${kind} is ${show(max)}`,
            CORRECT,
          );
      }),
    );
    threads(book, say, show);
    book.fasteners?.forEach(({ angle }, i) => above(angle, MOST_TURN, `fasteners[${i}].angle`, "is no turn"));
    book.airChecks?.forEach(({ pressure }, i) =>
      above(pressure, MOST_AIR, `airChecks[${i}].pressure`, "blows a seal out of its bore"),
    );
    book.fluid?.fills.forEach(({ amount }, i) =>
      above(amount, MOST_FILL, `fluid.fills[${i}].amount`, "go into no unit"),
    );
    book.fluid?.level.forEach(({ to }, i) =>
      above(to, HOTTEST, `fluid.level[${i}].to`, "is too hot to read a level at"),
    );
  },
};

/**
 * A thread of diameter d mm in the strongest steel gives way at about 0.08·d³ N·m (class 12.9, friction 0.12); nothing is stated at more than
 * twice that.
 */
function threads({ fasteners = [] }: Book, say: Say, show: (length: number) => string): void {
  fasteners.forEach(({ size, torque, length, places, passes = [] }, i) => {
    const path = `fasteners[${i}]`;
    const diameter = diameterOf(size);
    const most = diameter === null ? Infinity : 0.16 * diameter ** 3;
    for (const [at, one] of [
      ["torque", torque] as const,
      ...passes.map((pass, p) => [`passes[${p}]`, pass] as const),
    ])
      if (one && toNumber(baseOf(one)) > most)
        say(
          `${path}.${at}`,
          `${measureText(one)} tears ${size} off: it gives way at about ${Math.round(most / 2)} N·m`,
          CORRECT,
        );
    const tooLong = (own: number | undefined, at: string): void => {
      if (own !== undefined && own > MOST_BOLT) say(at, `no bolt is ${show(own)} long`, CORRECT);
    };
    tooLong(length, `${path}.length`);
    places.forEach((place, j) => tooLong(place.length, `${path}.places[${j}].length`));
  });
}

/** The diameter of a thread as it is written, in millimetres: M8, M10 × 1, 5/16-18; null where it is written otherwise. */
function diameterOf(size: string): number | null {
  const metric = /^M ?(\d+(?:\.\d+)?)\b/.exec(size)?.[1];
  if (metric !== undefined) return Number(metric);
  const [, top, bottom] = /^(\d+)\/(\d+)(?:-\d+)?$/.exec(size) ?? [];
  return top !== undefined && bottom !== undefined ? (Number(top) / Number(bottom)) * 25.4 : null;
}

/** A piston’s area is that of its ring, and what it pushes with is more than what pushes it back. */
export const pistons: Check = {
  reads: ["packs"],
  check({ packs }, _conditions, say) {
    packs.forEach(({ piston, spring, pressure }, i) => {
      if (!piston || piston.inner >= piston.outer) return;
      const ring = (Math.PI / 4) * (piston.outer ** 2 - piston.inner ** 2) * 1e-12;
      const area = toNumber(baseOf(piston.area));
      // Stated to three figures at best; a stepped piston may push with a part of its ring alone.
      if (area > ring * 1.1 || area < ring * 0.4)
        say(
          `packs[${i}].piston.area`,
          `${measureText(piston.area)} against ${(ring / 100).toFixed(1)} cm² between its diameters`,
          "correct the area or the diameters",
        );
      if (!spring || !pressure) return;
      const [force, back] = [toNumber(baseOf(pressure)) * 1000 * area * 1e-6, toNumber(baseOf(spring.force))];
      if (back >= force)
        say(
          `packs[${i}].spring.force`,
          `the spring pushes with ${measureText(spring.force)}, the piston with ${Math.round(force)} N: it never applies`,
          "correct the spring, the area or the pressure",
        );
    });
  },
};
