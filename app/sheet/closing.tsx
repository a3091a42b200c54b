import { Form, Link } from "react-router";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { placeOf } from "~/frame/stages";
import type { Open } from "~core/stage";

const ofProving = ({ kind, subject, stage }: Open): string => placeOf({ what: kind, subject, stage });

/** What is called what, and where it is answered. */
const GROUPS: Readonly<Record<Open["kind"], { words: string; page: (open: Open) => string; link: string }>> =
  {
    trait: { words: "not seen yet", page: () => "", link: "Correct what was seen" },
    step: { words: "steps not done", page: ({ key }) => `teardown?step=${key.slice(5)}`, link: "Tear down" },
    part: { words: "parts without an answer", page: () => "inspect", link: "Inspect" },
    question: { words: "open questions", page: ({ subject }) => `inspect?part=${subject}`, link: "Inspect" },
    renew: { words: "new parts not in yet", page: () => "inspect", link: "Inspect" },
    figure: { words: "figures not proven", page: () => "measure", link: "Measure" },
    build: {
      words: "build steps not done",
      page: ({ subject, stage }) => placeOf({ what: "build", subject, stage }),
      link: "Build",
    },
    proof: { words: "not seen to in the vehicle", page: ofProving, link: "Prove" },
    procedure: { words: "procedures not run to their end", page: ofProving, link: "Prove" },
    relearn: { words: "not learned anew", page: ofProving, link: "Prove" },
    drive: { words: "drives", page: ofProving, link: "Prove" },
    cause: { words: "failures without a cause", page: () => "cause", link: "Cause" },
    "weak point": { words: "known weak points", page: () => "cause", link: "Cause" },
    disagreement: { words: "contradicting words", page: () => "", link: "The job" },
  };
const SHOWN = 4;

/** What still stands in the way of closing, a group a line, each with the page where it is answered. */
export function StillOpen({ open }: { open: readonly Open[] }) {
  const { number } = useJobView();
  const say = useSay();
  const kinds = [...new Set(open.map(({ kind }) => kind))];
  return (
    <section className="plate no-print mb-3 p-4" aria-label="Still open">
      <h2 className="text-xl font-bold">
        {open.length} {open.length === 1 ? "answer" : "answers"} to go before it closes
      </h2>
      <ul>
        {kinds.map((kind) => {
          const list = open.filter((one) => one.kind === kind);
          const [first] = list;
          const { words, page, link } = GROUPS[kind];
          // What is said of all of them alike is said once, by the name of the group.
          const alike = list.every((one) => one.words === first?.words);
          const names = list
            .slice(0, SHOWN)
            .map(({ name, words: why }) => (alike && list.length > 1 ? name : `${name}: ${why}`));
          return (
            <li
              key={kind}
              className="border-base-300 flex items-center gap-3 border-t py-1.5"
              data-open={kind}
            >
              <span className="figure w-14 shrink-0 text-right text-2xl">{list.length}</span>
              <span className="grow leading-tight">
                <b>{words}</b>
                <span className="quiet block text-sm">
                  {names.join(alike ? ", " : "; ")}
                  {list.length > SHOWN && ` and ${list.length - SHOWN} more`}
                </span>
              </span>
              {kind === "renew" && (
                <button
                  type="button"
                  className="btn touch"
                  onClick={() =>
                    say({
                      kind: "renewed",
                      parts: list.map(({ key }) => key.slice("renew ".length)),
                      there: true,
                    })
                  }
                >
                  All of them are in
                </button>
              )}
              <Link className="btn touch" to={`/jobs/${number}/${first ? page(first) : ""}`}>
                {link}
              </Link>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** The button that closes, which waits until nothing is open. */
export function CloseButton({ id, open }: { id: string; open: number }) {
  return (
    <Form method="post">
      <input type="hidden" name="intent" value="close" />
      <input type="hidden" name="id" value={id} />
      <button className="btn btn-primary btn-lg touch" disabled={open > 0}>
        Close the job
      </button>
    </Form>
  );
}

/** How many of what a lead has signed for, in words. */
export const signedWords = (list: readonly Open[]): string =>
  [...new Set(list.map(({ kind }) => kind))]
    .map((kind) => {
      const of = list.filter((one) => one.kind === kind);
      return of.length <= 2
        ? of.map(({ name, words }) => `${name}: ${words}`).join(", ")
        : `${of.length} ${GROUPS[kind].words}`;
    })
    .join("; ");

/** What a lead has signed for, as the sheet prints it. */
export function SignedFor({ signed }: { signed: readonly Open[] }) {
  const by = new Map<string, Open[]>();
  for (const one of signed) by.set(one.signed?.id ?? "", [...(by.get(one.signed?.id ?? "") ?? []), one]);
  return (
    <>
      {[...by].map(([id, list]) => {
        const body = list[0]?.signed?.body;
        return (
          <p key={id} className="mt-3" data-signed-for={list.length}>
            Left as they are, signed by <b>{body?.signedBy}</b>, “{body?.reason}”: {signedWords(list)}.
          </p>
        );
      })}
    </>
  );
}
