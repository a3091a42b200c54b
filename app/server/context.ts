import type { Logger } from "pino";
import { createContext } from "react-router";
import type { Pool } from "~store/database";
import type { Tell } from "~store/orders";
import type { Live } from "~store/live";
import type { Staff } from "~store/staff";

export interface Https {
  port: number;
  httpPort: number;
  /** The certificate of the shop's own authority, as PEM; null with an owner's certificate. */
  authority: string | null;
}

/** What every loader and action can reach. Nothing here remembers anything another process would miss. */
export interface Services {
  pool: Pool;
  log: Logger;
  /** Tells when facts are added to a job, by whichever process. */
  live: Live;
  /** Where the simulated scan tool and label printer answer; empty when there is none. */
  scanToolUrl: string;
  printerUrl: string;
  /** Where the bench's gauge answers; empty when there is none. */
  gaugeUrl: string;
  /** Has what concerns a supplier sent there, where it has a computer. */
  tellSupplier: Tell;
  /** What the console shows, and whoever makes the first account types; empty where the server is no network’s. */
  firstRunCode: string;
  /** Whether the gallery of the visual language is shown. */
  gallery: boolean;
  cookieKey: string;
  /** How the shop's network reaches this process; null where it serves this machine alone. */
  https: Https | null;
}

export const services = createContext<Services>();
/** The address a request comes from. */
export const address = createContext<string>("");
export const nonce = createContext<string>("");
/** Who is signed in, once the door has let them in. */
export const signedIn = createContext<{ staff: Staff; sessionId: string }>();
