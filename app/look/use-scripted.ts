import { useSyncExternalStore } from "react";
import { useLocation } from "react-router";

const never = () => () => undefined;

/** Whether the script has loaded: false on the server and for the first drawing in the browser, which must be the same. */
export const useScripted = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );

/** What the address points at within a page, such as `chain-d1-clearance`; the server never sees it. */
export function useAnchor(): string {
  const { hash } = useLocation();
  return useScripted() ? hash.slice(1) : "";
}
