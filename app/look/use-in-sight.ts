import { useEffect, useRef, type RefObject } from "react";

/** A list that is scrolled by itself keeps what is shown in sight, a third from its top. */
export function useInSight<T extends HTMLElement>(shown: string | undefined): RefObject<T | null> {
  const list = useRef<T>(null);
  useEffect(() => {
    const nav = list.current;
    const link = nav?.querySelector<HTMLElement>("[aria-current]");
    if (nav && link) nav.scrollTop = link.offsetTop - nav.offsetTop - nav.clientHeight / 3;
  }, [shown]);
  return list;
}
