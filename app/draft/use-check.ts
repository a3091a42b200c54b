import { useEffect, useRef, useState } from "react";
import type { Checked } from "./check.worker";

/** How long after the last key the check begins. */
const PAUSE = 250;

/** A document's problems, found in a worker while one types; null until the first answer. */
export function useCheck(document: unknown): Checked | null {
  const [checked, setChecked] = useState<Checked | null>(null);
  const worker = useRef<Worker | null>(null);
  const turn = useRef(0);
  useEffect(() => {
    const started = new Worker(new URL("./check.worker.ts", import.meta.url), { type: "module" });
    // An answer to an older question is not shown over a newer one.
    started.onmessage = ({ data }: MessageEvent<Checked>) => data.turn === turn.current && setChecked(data);
    worker.current = started;
    return () => started.terminate();
  }, []);
  useEffect(() => {
    const mine = ++turn.current;
    const timer = setTimeout(() => worker.current?.postMessage({ turn: mine, document }), PAUSE);
    return () => clearTimeout(timer);
  }, [document]);
  return checked;
}
