import { chains, closing, orders } from "./chains";
import type { Check } from "./check";
import { conditions } from "./conditions";
import { packs, series } from "./packs";
import { fasteners, measurements, parts } from "./parts";
import { elements, gearSets, ranges, stations } from "./train";
import { chainSteps, packsBuilt, service, steps } from "./work";

/** What the trade would refuse, in the order a book is read. */
export const checks: readonly Check[] = [
  conditions,
  stations,
  gearSets,
  elements,
  ranges,
  series,
  packs,
  chains,
  closing,
  orders,
  parts,
  fasteners,
  measurements,
  steps,
  packsBuilt,
  chainSteps,
  service,
];
