import type { ReactNode } from "react";
import { useInside } from "~/door/inside";
import { useKeys } from "~/look/use-keys";

/** The line that is read from two metres. */
export function Large({ children }: { children: ReactNode }) {
  return <p className="figure text-[2rem] leading-tight first-letter:uppercase">{children}</p>;
}

/** The one thing a hand, a foot or a key says yes to. */
export function useGo(go: (() => void) | undefined, more: Readonly<Record<string, () => void>> = {}): void {
  const { house } = useInside();
  useKeys({ ...more, d: go, [house.footKey]: go });
}
