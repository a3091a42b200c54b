import { Link } from "react-router";
import { Field } from "~/look/field";
import { SayForm } from "~/say/say-form";
import { useJobView } from "~/view/view";
import type { Step } from "~core/book";
import type { Job } from "~core/fact";

/** What a step asks to be noted down: a field each, or the page that has it. */
export function Records({ step: { record = [] } }: { step: Step }) {
  const { job, number } = useJobView();
  if (record.length === 0) return null;
  return (
    <section className="border-base-300 mt-2 border-t pt-2" aria-label="To be noted down">
      {record.map(({ id, what, on }) => {
        const noted = job.noted.get(id);
        if (on)
          return (
            <p key={id} className="flex flex-wrap items-center gap-x-3" data-record={id}>
              <span className="stamp quiet">Record</span>{" "}
              <span className="grow first-letter:uppercase">{what}</span>
              <Link className="btn touch" to={`/jobs/${number}/before`}>
                {isThere(job, on) ? "Noted; look again" : "Note it"}
              </Link>
            </p>
          );
        if (job.closed)
          return (
            <p key={id} data-record={id}>
              <span className="stamp quiet mr-2">Record</span> {what}:{" "}
              <b>{noted?.body.text ?? "not noted"}</b>
            </p>
          );
        return (
          <SayForm
            key={`${id} ${noted?.id ?? ""}`}
            kind="noted"
            fixed={{ record: id }}
            className="flex items-end gap-3"
            keep
          >
            {(problems) => (
              <>
                <div className="grow" data-record={id}>
                  <Field
                    label={`Record: ${what}`}
                    name="text"
                    defaultValue={noted?.body.text}
                    problem={problems.text}
                    hint={noted ? `noted by ${noted.by}` : undefined}
                  />
                </div>
                <button className="btn touch mb-3">Keep</button>
              </>
            )}
          </SayForm>
        );
      })}
    </section>
  );
}

/** Whether the page of its own has something of it. */
function isThere(job: Job, on: "debris" | "fluid" | "read-outs"): boolean {
  switch (on) {
    case "debris":
      return job.debris.length > 0;
    case "fluid":
      return job.fluids.size > 0;
    case "read-outs":
      return job.readOuts.length > 0;
  }
}
