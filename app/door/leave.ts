import { useEffect } from "react";
import { dropAll } from "~/offline/kept";
import { LEFT } from "./left";

const TOLD = "yard-key-left";

/**
 * Signs out: here at once, with nothing of the shop left to read, whether the server answers or not; there with the next request that reaches it,
 * since the cookie set here ends the session it comes with.
 */
export async function leave(): Promise<void> {
  document.cookie = `${LEFT}=1; path=/; samesite=lax`;
  await dropAll().catch(() => {});
  localStorage.setItem(TOLD, `${Date.now()}`);
  window.location.assign("/sign-in");
}

/** A tab whose browser was signed out in another one shows nothing any more. */
export function useLeaving(): void {
  useEffect(() => {
    const heard = ({ key }: StorageEvent): void => {
      if (key === TOLD) window.location.assign("/sign-in");
    };
    window.addEventListener("storage", heard);
    return () => window.removeEventListener("storage", heard);
  }, []);
}
