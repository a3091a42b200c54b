import { useEffect } from "react";
import { useOutbox } from "~/outbox/use-outbox";

/** Addresses of the pictures that wait in this browser: one each, however often what waits is read anew. */
const made = new Map<string, string>();
function addressOf(photo: string, picture: Blob): string {
  const address = made.get(photo) ?? URL.createObjectURL(picture);
  made.set(photo, address);
  return address;
}

/** Where a picture is shown from: still in this browser, or the server. */
export function usePictures(number: number): (photo: string, size: "large" | "small") => string {
  const { waiting } = useOutbox();
  const here = new Map<string, Blob>();
  for (const { fact, picture } of waiting)
    if (picture && fact.body.kind === "photo") here.set(fact.body.photo, picture);
  useEffect(() => {
    const kept = new Set(waiting.map(({ fact: { body } }) => (body.kind === "photo" ? body.photo : "")));
    for (const [photo, address] of made) {
      if (kept.has(photo)) continue;
      URL.revokeObjectURL(address);
      made.delete(photo);
    }
  }, [waiting]);
  return (photo, size) => {
    const picture = here.get(photo);
    return picture ? addressOf(photo, picture) : `/jobs/${number}/photos/${photo}?size=${size}`;
  };
}
