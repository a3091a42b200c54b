import { chains, closing, orders } from "./chains";
import type { Check } from "./check";
import { conditions } from "./conditions";
import { packs, series } from "./packs";
import { ordersMet, seats } from "./seats";
import { fasteners, measurements, parts, weakPoints } from "./parts";
import { pistons, plausible } from "./plausible";
import { ballPlaces, takenOut, versionsReach } from "./reach";
import { elements, family, gearSets, ranges, stations } from "./train";
import { proving } from "./prove";
import { stronger } from "./stronger";
import { buildOrder } from "./build";
import { chainSteps, packsBuilt, service, steps, wrenches } from "./work";

/** What the trade would refuse, in the order a book is read. */
export const checks: readonly Check[] = [
  conditions,
  stations,
  family,
  gearSets,
  elements,
  ranges,
  series,
  packs,
  pistons,
  chains,
  seats,
  closing,
  orders,
  ordersMet,
  parts,
  weakPoints,
  stronger,
  fasteners,
  measurements,
  ballPlaces,
  versionsReach,
  plausible,
  steps,
  takenOut,
  packsBuilt,
  buildOrder,
  wrenches,
  chainSteps,
  service,
  proving,
];
