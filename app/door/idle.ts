import { useEffect, useState } from "react";

const ACTIVE = "yard-key-active";
const LOCKED = "yard-key-locked";
/** How often it is looked whether a bench was left, and how fine its last touch is noted, in ms. */
const LOOK_MS = 5_000;
const NOTE_MS = 1_000;
const TOUCHES = ["pointerdown", "keydown", "wheel"] as const;

/** Whoever comes has said who they are, here or in another tab. */
export function unlocked(): void {
  // In this order: a tab that hears it is open must not find it untouched for half an hour, and lock it again.
  localStorage.setItem(ACTIVE, `${Date.now()}`);
  localStorage.removeItem(LOCKED);
}

/** How long no tab of this browser was touched, in ms; a clock set back counts as a touch. */
function idleMs(): number {
  const last = Number(localStorage.getItem(ACTIVE) ?? 0);
  const idle = Date.now() - last;
  return idle >= 0 ? idle : 0;
}

/** Ends nothing and locks the session: what is on the page stays. False where the server is away: then nobody could come back. */
const lockedByServer = (): Promise<boolean> =>
  fetch("/lock", { method: "POST", headers: { Accept: "application/json" } }).then(
    (answer) => answer.ok,
    () => false,
  );

/**
 * Whether this bench was left, in any tab of this browser.
 *
 * @param minutes without a touch; 0 never asks.
 */
export function useLocked(minutes: number): [locked: boolean, open: () => void] {
  const [locked, setLocked] = useState(false);
  useEffect(() => {
    if (minutes === 0) return;
    let busy = false;
    let noted = 0;
    const note = (): void => {
      if (localStorage.getItem(LOCKED) !== null || Date.now() - noted < NOTE_MS) return;
      noted = Date.now();
      localStorage.setItem(ACTIVE, `${noted}`);
    };
    const show = (): void => setLocked(localStorage.getItem(LOCKED) !== null);
    const look = (): void => {
      show();
      if (busy || localStorage.getItem(LOCKED) !== null || idleMs() < minutes * 60_000) return;
      busy = true;
      void lockedByServer().then((done) => {
        busy = false;
        if (!done) return;
        localStorage.setItem(LOCKED, "1");
        setLocked(true);
      });
    };
    // Opened anew: whoever opened it is there.
    note();
    look();
    const timer = setInterval(look, LOOK_MS);
    for (const touch of TOUCHES) document.addEventListener(touch, note, { capture: true, passive: true });
    window.addEventListener("storage", show);
    return () => {
      clearInterval(timer);
      for (const touch of TOUCHES) document.removeEventListener(touch, note, { capture: true });
      window.removeEventListener("storage", show);
    };
  }, [minutes]);
  const open = (): void => {
    unlocked();
    setLocked(false);
  };
  return [locked, open];
}
