import { lazy, memo, Suspense, useEffect, useState, type ComponentType } from "react";

/** How long until what did not come is asked for again, and how long one waits for it, in milliseconds. */
const AGAIN_MS = 2_000;

const awhile = (): Promise<unknown> => new Promise((resolve) => setTimeout(resolve, AGAIN_MS));

/** Parts of a page that come after what it is about. */
export interface Soon<M> {
  /** A component of theirs. */
  part: <K extends keyof M>(name: K) => M[K];
  /** Brings them while something else is waited for: where a page is drawn in the browser there is nothing to show in their place. */
  beside: <T>(other: Promise<T>) => Promise<T>;
}

/** Those on the page that do not hear yet, and those that do. */
const deaf = new Set<object>();
const hearing = new WeakSet<object>();
const listeners = new Set<() => void>();

/** Calls once everything on the page hears its keys. */
export function whenAllHear(call: () => void): void {
  listeners.add(call);
  tell();
}

function tell(): void {
  if (deaf.size > 0) return;
  for (const call of listeners) call();
  listeners.clear();
}

function Hears({ place }: { place: object }) {
  useEffect(() => {
    hearing.add(place);
    deaf.delete(place);
    tell();
  }, [place]);
  return null;
}

/**
 * Parts of a page whose script comes after its first paint. The server draws them with the rest; until their script is there they show what it drew,
 * and their links lead where they say.
 *
 * @param load brings their script; again, where it did not come.
 */
export function soon<M extends Readonly<Record<keyof M, ComponentType<never>>>>(
  load: () => Promise<M>,
): Soon<M> {
  let coming: Promise<M> | null = null;
  const once = (): Promise<M> => load().catch(() => awhile().then(once));
  const bring = (): Promise<M> => (coming ??= once());
  // At once, not when it is drawn: a page that is opened from another one has it sooner.
  if (typeof document !== "undefined") void bring();
  return {
    part: (name) => {
      const Part = lazy(async () => ({ default: (await bring())[name] as ComponentType<object> }));
      const Whole = (props: object) => {
        const [place] = useState(() => ({}));
        useEffect(() => {
          if (!hearing.has(place)) deaf.add(place);
          return () => {
            deaf.delete(place);
            tell();
          };
        }, [place]);
        return (
          <Suspense fallback={null}>
            <Part {...props} />
            <Hears place={place} />
          </Suspense>
        );
      };
      return memo(Whole) as unknown as M[typeof name];
    },
    beside: async (other) => {
      // They never hold a page up for long.
      const [found] = await Promise.all([other, Promise.race([bring(), awhile()])]);
      return found;
    },
  };
}
