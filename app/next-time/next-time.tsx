import { Lightbulb, Undo2 } from "lucide-react";
import { memo, useRef, useState } from "react";
import { Choice, Field } from "~/look/field";
import { OfferedPictures } from "~/photos/offered";
import { BookPicture } from "~/pictures/shown";
import { SayForm } from "~/say/say-form";
import { useSay } from "~/say/use-say";
import { useJobAt, useJobView } from "~/view/view";
import { pictureIn, type Book } from "~core/book";
import { LESSONS, wordsOf, type Lesson } from "~core/fact";

/**
 * What the book says for next time about a thing, what this job found out about it, and where it says more: a lead takes it over into the book.
 *
 * @param of a step, part, figure or group of bolts of the book; the whole unit where it is left out.
 */
export function NextTime({ of }: { of?: string | undefined }) {
  const { job, applied } = useJobView();
  const { present } = applied;
  const tips = (present.tips ?? []).filter((tip) => tip.of === of);
  const said = job.nextTime.filter(({ body }) => body.of === of);
  if (job.closed && tips.length === 0 && said.length === 0) return null;
  return (
    <section className="mt-2" aria-label="Next time" data-next-time={of ?? ""}>
      {tips.map(({ id, text, learnt, picture }) => (
        <div key={id} className="border-accent mb-1 border-l-4 pl-3 text-lg" data-tip={id}>
          <Lightbulb size={18} aria-label="Tip" className="mr-1 inline align-[-2px]" /> {text}
          {learnt && <span className="quiet ml-2 text-sm">{learnt}</span>}
          <BookPicture picture={pictureIn(present, picture)} words={text} />
        </div>
      ))}
      <ul>
        {said.map((fact) => (
          <Said key={fact.id} fact={fact} />
        ))}
      </ul>
      {!job.closed && <SayIt key={of ?? ""} of={of} present={present} />}
    </section>
  );
}

type SaidFact = ReturnType<typeof useJobView>["job"]["nextTime"][number];

function Said({ fact: { body, by } }: { fact: SaidFact }) {
  const { job } = useJobView();
  const say = useSay();
  return (
    <li className="flex items-center gap-3" data-lesson={body.lesson}>
      <span className="grow">
        <span className="stamp quiet mr-2">{LESSONS.words[body.is]}</span>
        {body.name && <b>{body.name}. </b>}
        {body.text} <span className="quiet">({by})</span>
      </span>
      {!job.closed && (
        <button
          type="button"
          className="btn btn-ghost touch"
          aria-label={`Take back: ${body.text}`}
          onClick={() => say({ ...body, there: false })}
        >
          <Undo2 size={18} aria-hidden="true" />
        </button>
      )}
    </li>
  );
}

/** Of nothing that a fact changes. */
const SayIt = memo(function SayIt({ of, present }: { of: string | undefined; present: Book }) {
  const { unit } = useJobAt();
  const details = useRef<HTMLDetailsElement>(null);
  const [is, setIs] = useState<Lesson>("tip");
  const [photo, setPhoto] = useState<string | undefined>();
  const group = present.fasteners?.find(({ id }) => id === of);
  const hasLimit = group !== undefined || present.chains.some(({ id }) => id === of);
  const close = (): void => {
    if (details.current) details.current.open = false;
    setIs("tip");
    setPhoto(undefined);
  };
  const named = is === "weak-point" || is === "tool";
  return (
    <details ref={details}>
      <summary className="touch inline-flex cursor-pointer items-center gap-2 underline underline-offset-4">
        <Lightbulb size={18} aria-hidden="true" /> For next time …
      </summary>
      <SayForm
        kind="next-time"
        fixed={{ ...(of === undefined ? {} : { of }), unit, ...(photo ? { photo } : {}) }}
        className="border-base-300 mt-2 border-t pt-2"
        onSaid={close}
      >
        {(problems) => (
          <>
            <Choice
              label="What it is"
              name="is"
              value={is}
              onChange={setIs}
              options={wordsOf(LESSONS)
                .filter(([code]) => code !== "limit" || hasLimit)
                .map(([value, words]) => ({ value, words }))}
            />
            {problems.is && (
              <p role="alert" className="text-error font-semibold">
                {problems.is}
              </p>
            )}
            {named && <Field label="Name" name="name" autoComplete="off" problem={problems.name} />}
            <Field label={TEXT[is]} name="text" autoComplete="off" problem={problems.text} />
            {is === "weak-point" && (
              <Field label="What is done about it" name="done" autoComplete="off" problem={problems.done} />
            )}
            {is === "tool" && (
              <Field
                label="What it must not be asked to do"
                name="not"
                autoComplete="off"
                problem={problems.not}
              />
            )}
            {is === "limit" &&
              (group ? (
                <Field label="Torque" name="torque" autoComplete="off" problem={problems.torque} />
              ) : (
                <div className="grid grid-cols-2 gap-3">
                  <Field
                    label="Min"
                    name="min"
                    inputMode="decimal"
                    autoComplete="off"
                    problem={problems.min}
                  />
                  <Field
                    label="Max"
                    name="max"
                    inputMode="decimal"
                    autoComplete="off"
                    problem={problems.max}
                  />
                </div>
              ))}
            {is !== "limit" && <OfferedPictures photo={photo} onPhoto={setPhoto} />}
            <div className="flex gap-2">
              <button className="btn btn-secondary touch">Say it</button>
              <button type="button" className="btn touch" onClick={close}>
                Not now
              </button>
            </div>
            <p className="quiet mt-1 text-sm">A lead takes it over into the book of this unit.</p>
          </>
        )}
      </SayForm>
    </details>
  );
});

const TEXT: Readonly<Record<Lesson, string>> = {
  tip: "What helps the next one",
  "weak-point": "What the customer notices",
  tool: "What it does",
  limit: "Why it is held here",
};
