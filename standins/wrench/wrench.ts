/** A torque wrench as it is used: what its cell is off by, and how full its battery is. */
export interface WrenchState {
  /** Of 1: a part in a thousand is a part in a thousand of every pull. */
  drift: number;
  /** Percent. */
  battery: number;
}

/** A wrench fresh from its calibration. */
export const fresh = (): WrenchState => ({ drift: 0, battery: 100 });

/** Below this it says nothing but that it wants charging. */
export const LOW = 8;
const A_PULL = 0.4;
const DRIFT = 0.00008;
const SCATTER = 0.012;
/** One pull in so many stops before the click, one goes well past it. */
const SHORT = 17;
const OVER = 23;

/** What a pull comes to: what it read, or why it says nothing. */
export type Pulled = { torque: number; battery: number } | { problem: string; battery: number };

/**
 * A hand pulls until it clicks: near what it was set to, a little drifted, seldom short of it, more seldom past it.
 *
 * @param wanted in newton metres.
 * @param chance a source of numbers in [0, 1).
 */
export function pull(
  state: WrenchState,
  wanted: number,
  chance: () => number,
): { state: WrenchState; pulled: Pulled } {
  const battery = Math.max(0, state.battery - A_PULL);
  if (battery < LOW)
    return { state: { ...state, battery }, pulled: { problem: "its battery is empty", battery } };
  const kind = chance();
  const part =
    kind < 1 / SHORT
      ? 0.8 + 0.12 * chance()
      : kind < 1 / SHORT + 1 / OVER
        ? 1.14 + 0.1 * chance()
        : 1 + SCATTER * (2 * chance() - 0.6);
  const torque = Math.round(wanted * part * (1 + state.drift) * 10) / 10;
  return { state: { drift: state.drift + DRIFT, battery }, pulled: { torque, battery: Math.round(battery) } };
}
