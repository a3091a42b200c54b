import { useEffect, useState } from "react";

/** How long a browser that cannot say when it rests is left alone. */
const SETTLED_MS = 300;

/** Runs something once the page stands and the browser rests. @returns how to leave it. */
function whenResting(run: () => void): () => void {
  if ("requestIdleCallback" in window) {
    const asked = requestIdleCallback(run);
    return () => cancelIdleCallback(asked);
  }
  const asked = setTimeout(run, SETTLED_MS);
  return () => clearTimeout(asked);
}

/** What a page can do without until somebody asks for it: loaded once the page stands. @returns null until it is there. */
export function useLater<T>(load: () => Promise<T>): T | null {
  const [loaded, setLoaded] = useState<{ it: T } | null>(null);
  useEffect(() => {
    let left = false;
    const leave = whenResting(
      () =>
        void load().then(
          (it) => !left && setLoaded({ it }),
          // It is asked for again with the next page.
          () => {},
        ),
    );
    return () => {
      left = true;
      leave();
    };
  }, [load]);
  return loaded?.it ?? null;
}
