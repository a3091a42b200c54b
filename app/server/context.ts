import type { Logger } from "pino";
import { createContext } from "react-router";
import type { Pool } from "~store/database";
import type { Live } from "~store/live";
import type { Staff } from "~store/staff";

/** What every loader and action can reach. Nothing here remembers anything another process would miss. */
export interface Ground {
  pool: Pool;
  log: Logger;
  /** Tells when facts are added to a job, by whichever process. */
  live: Live;
  /** Where the simulated scan tool and label printer answer; empty when there is none. */
  scanToolUrl: string;
  printerUrl: string;
  /** Where the bench's gauge answers; empty when there is none. */
  gaugeUrl: string;
  /** Whether the gallery of the visual language is shown. */
  gallery: boolean;
  cookieKey: string;
}

export const ground = createContext<Ground>();
export const nonce = createContext<string>("");
/** Who is signed in, once the door has let them in. */
export const visitor = createContext<{ staff: Staff; sessionId: string }>();
