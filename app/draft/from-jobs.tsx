import { useState } from "react";
import { useFetcher } from "react-router";
import { useWhen } from "~/door/when";
import { proposedIn, takeIn, type Proposal } from "~core/learn";
import type { SaidNextTime } from "~store/proposals";
import type { Decided } from "./proposals";

/** What jobs of this unit found out for next time: a lead takes it over into the draft, or leaves it. */
export function FromJobs({
  unit,
  said,
  document,
  change,
}: {
  unit: string;
  said: readonly SaidNextTime[];
  document: unknown;
  change: (document: unknown) => void;
}) {
  const { day } = useWhen();
  const proposals = said.map(({ job, fact: { at, by, body } }): Proposal => ({
    job,
    by,
    day: day(at),
    said: body,
    picture: null,
  }));
  const decide = useFetcher<Decided | null>();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [settled, setSettled] = useState<Decided | null>(null);
  const answer = decide.state === "idle" ? decide.data : undefined;
  if (answer && answer !== settled) {
    setSettled(answer);
    const one = proposals.find((each) => keyOf(each) === keyOfDecided(answer));
    if (answer.is === "leave") setLeft(new Set([...left, keyOfDecided(answer)]));
    else if (one) change(takeIn(document, { ...one, picture: answer.picture }));
  }
  const open = proposals.flatMap((one) => {
    const proposed = left.has(keyOf(one)) ? null : proposedIn(document, one);
    return proposed ? [{ one, proposed }] : [];
  });
  return (
    <section className="plate p-5" aria-label="From jobs">
      <h2 className="mb-2 text-xl font-bold">What jobs found out for next time</h2>
      {open.length === 0 && (
        <p className="text-lg">
          Nothing that this draft does not say. On a job it is said at the step, part or figure it is about.
        </p>
      )}
      <ul>
        {open.map(({ one, proposed: { title, changes } }) => (
          <li
            key={keyOf(one)}
            className="border-base-300 grid grid-cols-[1fr_auto] items-start gap-3 border-t py-3"
            data-proposal={keyOf(one)}
          >
            <span>
              <b className="text-lg first-letter:uppercase">{title}</b>
              <span className="quiet block">
                Job {one.job}, {one.by}, {one.day}
                {one.said.photo !== undefined && ", with a picture"}
              </span>
              {changes.map((line) => (
                <span key={line} className="block">
                  {line}
                </span>
              ))}
            </span>
            <decide.Form method="post" action={`/books/${unit}/proposals`} className="flex gap-2">
              <input type="hidden" name="job" value={one.job} />
              <input type="hidden" name="lesson" value={one.said.lesson} />
              <button
                className="btn btn-primary touch"
                name="intent"
                value="take"
                disabled={decide.state !== "idle"}
              >
                Take it over
              </button>
              <button className="btn touch" name="intent" value="leave" disabled={decide.state !== "idle"}>
                Leave it
              </button>
            </decide.Form>
          </li>
        ))}
      </ul>
    </section>
  );
}

const keyOf = ({ job, said }: Proposal): string => `${job} ${said.lesson}`;
const keyOfDecided = ({ job, lesson }: Decided): string => `${job} ${lesson}`;
