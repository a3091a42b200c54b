import type { PhaseFigure } from "~core/measure";

/** How a figure stands, in words for paper and tables: its limits, and its order with others. */
export const standsAs = ({ standing, wrongOrder }: Pick<PhaseFigure, "standing" | "wrongOrder">): string =>
  [standing, ...wrongOrder.map((words) => `${words}: wrong order`)].join(", ");
