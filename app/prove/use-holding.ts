import { useEffect, useRef } from "react";
import type { Happened } from "~core/fact";
import type { Run } from "~core/procedure";

/** Once said, it is not said again before the page has it back. */
const QUIET_MS = 3_000;

/**
 * Says by itself that what a turn wants is held, and that it no longer is, where the vehicle tells: one hand less at the key.
 *
 * @param watches whether this tablet is the one that says so: the turn’s own, connected to the vehicle.
 */
export function useHolding(
  { turn, run, held, lines }: Run,
  watches: boolean,
  tell: (did: Happened) => void,
): void {
  const said = useRef({ what: "", at: 0 });
  const met = lines.length > 0 && lines.every(({ is }) => is === "met");
  const unmet = lines.some(({ is }) => is === "unmet");
  const did =
    !watches || !turn?.hold ? "" : met && held === null ? "held" : unmet && held !== null ? "broke" : "";
  useEffect(() => {
    if (did !== "held" && did !== "broke") return;
    const what = `${run} ${turn?.id} ${did}`;
    if (said.current.what === what && Date.now() - said.current.at < QUIET_MS) return;
    said.current = { what, at: Date.now() };
    tell(did);
  });
}
