import type { Part, PartKind } from "../book";

const PLATE = ["lip up", "lip down", "either way"];
/** How things of a kind can sit, in the words the bench uses. The first of a pair is no better than the second. */
const WAYS: Readonly<Partial<Record<PartKind, readonly string[]>>> = {
  friction: ["printed side up", "printed side down", "either way"],
  steel: ["sharp edge up", "sharp edge down", "either way"],
  "waved plate": PLATE,
  "apply plate": ["step up", "step down"],
  "reaction plate": ["step up", "step down", "flat both sides"],
  "snap ring": ["bevel out", "bevel in", "flat"],
  "dished spring": ["dish up", "dish down"],
  spring: ["retainer up", "retainer down"],
  piston: ["lip toward pressure", "lip away from pressure"],
  seal: ["lip toward pressure", "lip away from pressure"],
  "sealing ring": ["joint up", "joint turned away"],
  "thrust bearing": ["race up", "race down"],
  "taper bearing": ["small end up", "small end down"],
  bearing: ["mark up", "mark down"],
  washer: ["grooves up", "grooves down", "tabs in slots"],
  shim: ["chamfer up", "chamfer down"],
  gear: ["chamfer up", "chamfer down", "mark up"],
  carrier: ["pins up", "pins down"],
  "one-way clutch": ["flange up", "flange down", "arrow up"],
  "pump gears": ["mark up", "mark down"],
  gasket: ["print up", "print down"],
  synchroniser: ["notch up", "notch down"],
  fork: ["pad numbers up", "pad numbers down"],
  belt: ["arrow forward", "arrow back"],
  pulley: ["fixed face up", "fixed face down"],
  valve: ["long land in", "long land out"],
  magnet: ["in its pocket", "elsewhere in the pan"],
};

/** @returns the ways a part can have sat; empty where there is only one. */
export const waysOf = ({ kind }: Part): readonly string[] => (kind ? (WAYS[kind] ?? []) : []);

/** Parts that look alike from both ends: without a mark of one's own nobody knows afterwards which way they sat. */
export const wantsMark = ({ kind }: Part): boolean =>
  kind !== undefined && ["pump gears", "synchroniser", "gear", "pulley", "steel"].includes(kind);
