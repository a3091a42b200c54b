import { useEffect } from "react";
import { keep } from "./kept";
import type { KeptKey } from "./keys";

/** Keeps what a page was first drawn with, which no loader of the browser has seen. */
export function useKept(key: KeptKey, data: unknown): void {
  useEffect(() => void keep(key, data), [key, data]);
}
