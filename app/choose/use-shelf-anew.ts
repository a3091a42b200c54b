import { useEffect } from "react";
import { useFetcher } from "react-router";
import { live } from "~/live/shared";

/** So long after something happened anywhere the shelf is looked at again: several facts of one moment are one look. */
const SOON = 400;

/**
 * What a page was loaded with, and anew a moment after anything happened on any job: what another takes off the shelf changes what can be had here. Only
 * this page's own data are fetched, not its job's.
 *
 * @param path of the page.
 */
export function useShelfAnew<T>(path: string, loaded: T): T {
  const { load, data } = useFetcher<T>({ key: path });
  useEffect(() => {
    let soon: ReturnType<typeof setTimeout> | undefined;
    const stop = live.watch(() => {
      clearTimeout(soon);
      soon = setTimeout(() => void load(path), SOON);
    });
    return () => {
      clearTimeout(soon);
      stop();
    };
  }, [load, path]);
  return (data as T | undefined) ?? loaded;
}
