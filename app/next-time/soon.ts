import { soon } from "~/look/soon";

/** What this job found out for the book, said where it is about something. */
export const NextTime = soon(() => import("./next-time")).part("NextTime");
