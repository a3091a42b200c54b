import { soon } from "~/look/soon";

/** What another piece lays open in what is built already: it takes the whole plan of the build to say. */
export const OpensAgain = soon(() => import("./opens-again")).part("OpensAgain");
