import { soon } from "~/look/soon";

/** Which gauge feeds the fields of a page; most benches type. */
export const GaugeBar = soon(() => import("./gauge-bar")).part("GaugeBar");
