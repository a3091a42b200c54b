import { type Book } from "../book";
import { readBook } from "../check";

/** A small book of one unit for tests of core, in the document's own form. Figures made up. */
export const dunlinDocument = () => ({
  format: "yard-key/book@1",
  unit: {
    id: "test-dunlin",
    maker: "Marram",
    name: "Dunlin",
    family: "automatic",
    lengthUnit: "mm",
    revision: 1,
    source: "made up",
  },
  traits: [
    {
      id: "body",
      name: "Body",
      values: { early: { name: "early", tell: "one rib" }, late: { name: "late", tell: "two ribs" } },
    },
  ],
  depths: ["pan and body", "full"],
  stations: [{ id: "drum", name: "drum", kind: "drum", from: 20, to: 60, reach: 80 }],
  train: { input: "input", output: "output", held: "case" },
  members: ["input", "small-sun", "ring", "output", "case"],
  gearSets: [
    { id: "rear", kind: "simple", sun: ["small-sun", 32], ring: ["ring", 76], carrier: "output", pinions: 4 },
  ],
  elements: [
    { id: "d1", kind: "clutch", joins: ["input", "small-sun"], aka: ["low-side clutch"] },
    { id: "h1", kind: "brake", joins: ["ring", "case"], aka: ["brake"] },
  ],
  ranges: [{ id: "1", applied: ["d1", "h1"], ratio: 3.375 }],
  series: [
    {
      id: "ring-a",
      name: "drum ring",
      kind: "snap ring",
      tolerance: "0.015 mm",
      sizes: [
        { mark: "one notch", size: "1.60 mm", part: "P160" },
        { mark: "two notches", size: "1.75 mm", part: "P175" },
        { mark: "three notches", size: "1.90 mm", part: "P190" },
        { mark: "one dot", size: "2.05 mm", part: "P205" },
      ],
    },
  ],
  packs: [
    {
      element: "d1",
      name: "low-side clutch",
      duty: "shifting",
      station: "drum",
      depth: ["full"],
      stack: [
        {
          role: "waved plate",
          part: "wave",
          thickness: "1.90 mm",
          wave: { amount: "0.35 mm", within: "0.05 mm" },
        },
        { role: "steel", part: "steel", thickness: "1.80 mm", count: 3, when: { body: "early" } },
        { role: "friction", part: "friction", thickness: "1.60 mm", count: 3, when: { body: "early" } },
        { role: "steel", part: "steel", thickness: "1.80 mm", count: 4, when: { body: "late" } },
        { role: "friction", part: "friction", thickness: "1.60 mm", count: 4, when: { body: "late" } },
        { role: "reaction plate", part: "reaction", thickness: "4.80 mm" },
      ],
    },
    {
      element: "h1",
      name: "brake",
      duty: "standstill",
      station: "drum",
      depth: ["full"],
      stack: [
        { role: "steel", part: "steel", thickness: "1.80 mm", count: 2 },
        { role: "friction", part: "friction", thickness: "1.60 mm", count: 2 },
        { role: "reaction plate", part: "reaction", thickness: "4.80 mm" },
      ],
    },
  ],
  chains: [
    {
      id: "d1-clearance",
      name: "D1 clearance",
      kind: "pack clearance",
      of: "d1",
      links: [
        ["+", "measured", "groove-depth"],
        ["-", "stack", "d1"],
        ["-", "series", "ring-a"],
      ],
      spec: { min: "1.05 mm", max: "1.40 mm", soak: "soaked", wave: "free", checked: "2026-05-04" },
      soaking: { amount: "-0.06 mm", within: "0.02 mm" },
      bedding: { amount: "+0.03 mm", within: "0.02 mm" },
      read: { with: ["air and dial", "feeler"] },
    },
    {
      id: "h1-clearance",
      name: "H1 clearance",
      kind: "pack clearance",
      of: "h1",
      links: [
        ["+", "measured", "groove-depth"],
        ["-", "stack", "h1"],
      ],
      spec: { min: "0.90 mm", max: "1.30 mm", soak: "soaked", checked: "2026-05-04" },
      read: { with: ["feeler"] },
    },
  ],
  parts: ["wave", "steel", "friction", "reaction"].map((id, i) => ({
    id,
    name: id,
    number: `TD-${100 + i}`,
  })),
});

export function dunlin(): Book {
  const read = readBook(dunlinDocument());
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.book;
}
