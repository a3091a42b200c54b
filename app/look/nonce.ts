import { createContext } from "react";

/** The nonce of this response's content-security policy; empty in the browser, where it has done its work. */
export const NonceContext = createContext<string | undefined>(undefined);
