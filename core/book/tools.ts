import { compareMeasures, type Measure } from "../quantity";
import type { Tool } from "./format/work";

/** Whether a wrench can be set to a torque; what is no wrench, or does not say how far it reaches, cannot. */
export const isInReach = ({ reach }: Pick<Tool, "reach">, torque: Measure<"torque">): boolean =>
  reach !== undefined && compareMeasures(reach.from, torque) <= 0 && compareMeasures(torque, reach.to) <= 0;

/** Of some tools the torque wrenches that say how far they reach. */
export const wrenchesOf = (tools: readonly Tool[]): Tool[] =>
  tools.filter(({ reach }) => reach !== undefined);
