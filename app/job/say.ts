import { v7 as newId } from "uuid";
import { useInside } from "~/door/inside";
import { outbox } from "~/outbox/outbox";
import type { FactBody } from "~core/job";
import { useJobView } from "./job";

/** Says a fact at the bench: shown at once, kept in the browser, sent when the server answers. */
export function useSay(): (body: FactBody, replaces?: string) => void {
  const { staff } = useInside();
  const { number } = useJobView();
  return (body, replaces) => {
    const fact = {
      id: newId(),
      at: new Date().toISOString(),
      by: staff.name,
      ...(replaces ? { replaces } : {}),
      body,
    };
    void outbox.say(number, fact);
  };
}
