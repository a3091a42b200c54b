import { useEffect, useMemo, useRef, useState } from "react";
import { useFetcher } from "react-router";
import { useInside } from "~/door/inside";
import { whenIn } from "~/door/when";
import { capital } from "~core/book";
import { proposedIn, takeIn, type Proposal, type Proposed } from "~core/learn";
import type { SaidNextTime } from "~store/proposals";
import type { Decided } from "./proposals";

/** What jobs of a unit found out that a document does not say yet, until it is decided on. */
export function useProposals(said: readonly SaidNextTime[], document: unknown): Open[] {
  const { timeZone } = useInside().house;
  return useMemo(() => {
    const { day } = whenIn(timeZone);
    return said.flatMap(({ job, fact: { at, by, body } }): Open[] => {
      const one: Proposal = { job, by, day: day(at), said: body, picture: null };
      const proposed = proposedIn(document, one);
      return proposed ? [{ one, proposed }] : [];
    });
  }, [said, document, timeZone]);
}
interface Open {
  one: Proposal;
  proposed: Proposed;
}

/** A lead takes what jobs found out over into the draft, or leaves it. */
export function FromJobs({
  unit,
  open,
  document,
  change,
}: {
  unit: string;
  open: readonly Open[];
  document: unknown;
  change: (document: unknown) => void;
}) {
  const decide = useFetcher<Decided | null>();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const answer = decide.state === "idle" ? (decide.data ?? null) : null;
  if (answer?.is === "leave" && !left.has(keyOfDecided(answer)))
    setLeft(new Set([...left, keyOfDecided(answer)]));
  const taken = useRef<Decided | null>(null);
  useEffect(() => {
    if (answer?.is !== "take" || answer === taken.current) return;
    taken.current = answer;
    const one = open.find((each) => keyOf(each.one) === keyOfDecided(answer))?.one;
    if (one) change(takeIn(document, { ...one, picture: answer.picture }));
  }, [answer, open, document, change]);
  const shown = open.filter(({ one }) => !left.has(keyOf(one)));
  return (
    <section className="plate p-5" aria-label="From jobs">
      <h2 className="mb-2 text-xl font-bold">What jobs found out for next time</h2>
      {shown.length === 0 && (
        <p className="text-lg">
          Nothing that this draft does not say. On a job it is said at the step, part or figure it is about.
        </p>
      )}
      <ul>
        {shown.map(({ one, proposed: { title, changes } }) => (
          <li
            key={keyOf(one)}
            className="border-base-300 grid grid-cols-[1fr_auto] items-start gap-3 border-t py-3"
            data-proposal={keyOf(one)}
          >
            <span>
              <b className="text-lg">{capital(title)}</b>
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
