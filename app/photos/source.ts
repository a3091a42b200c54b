import { useEffect, useMemo } from "react";
import { useOutbox } from "~/outbox/use-outbox";

/** Where a picture is shown from: still in this browser, or the server. */
export function usePictures(number: number): (photo: string, size: "large" | "small") => string {
  const { waiting } = useOutbox();
  const here = waiting.filter(({ fact, picture }) => picture && fact.body.kind === "photo");
  const key = here.map(({ fact }) => fact.id).join();
  // Made anew only when another picture waits.
  const urls = useMemo(
    () =>
      new Map(
        here.flatMap(({ fact: { body }, picture }) =>
          picture && body.kind === "photo" ? [[body.photo, URL.createObjectURL(picture)] as const] : [],
        ),
      ),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [key],
  );
  useEffect(() => () => urls.forEach((url) => URL.revokeObjectURL(url)), [urls]);
  return (photo, size) => urls.get(photo) ?? `/jobs/${number}/photos/${photo}?size=${size}`;
}
