import { BookPlus } from "lucide-react";
import { useState } from "react";
import { Form } from "react-router";
import { v7 as newId } from "uuid";
import { useJobView } from "~/view/view";
import { useOutbox } from "~/outbox/use-outbox";

/** A job’s acts as a draft of its unit’s book: of everything, or of what this job did otherwise. */
export function MakeBook({ isWhole }: { isWhole: boolean }) {
  const { number } = useJobView();
  const { waiting } = useOutbox();
  // Made once: pressed twice it is one draft.
  const [id] = useState(() => newId());
  return (
    <Form method="post" reloadDocument action={`/jobs/${number}/learn`} className="mt-3">
      <input type="hidden" name="id" value={id} />
      <button className="btn btn-secondary touch w-full" disabled={waiting.length > 0}>
        <BookPlus size={20} aria-hidden="true" /> {isWhole ? "Make the book" : "Offer it to the book"}
      </button>
      <p className="quiet mt-1 text-sm">
        {isWhole
          ? "A draft: taken down in this order, built the other way round. A lead looks at it and publishes it."
          : "A draft with what this job did otherwise. A lead looks at it and publishes it."}
      </p>
    </Form>
  );
}
