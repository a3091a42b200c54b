import { v7 as newId } from "uuid";
import { useInside } from "~/door/inside";
import { idOf, seenOf } from "~/live/seen";
import { outbox } from "~/outbox/outbox";
import type { FactBody } from "~core/fact";
import { useJobAt } from "~/view/view";

type Say = (body: FactBody, more?: { replaces?: string; picture?: Blob }) => void;

/** Says a fact of a job: shown at once, kept in the browser, sent when the server answers. */
export function useSayOf(number: number): Say {
  const { staff, voucher } = useInside();
  return (body, { replaces, picture } = {}) => {
    const after = seenOf(number);
    const fact = {
      id: newId(),
      at: new Date().toISOString(),
      by: staff.name,
      ...(replaces ? { replaces } : {}),
      ...(after ? { after } : {}),
      body,
    };
    void outbox.say(number, fact, { picture, voucher, jobId: idOf(number) });
  };
}

/** The same, of the job whose page it is. */
export function useSay(): Say {
  return useSayOf(useJobAt().number);
}
