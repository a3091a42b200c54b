import { useState } from "react";
import { useWhen } from "~/door/when";
import { Choice, Field } from "~/look/field";
import { SayForm } from "~/say/say-form";
import { useJobView } from "~/view/view";

/** A question about a part that nobody can answer yet: what it could come to, by when, and whether the build waits for it. */
export function OpenQuestion({ part }: { part: string }) {
  const { job } = useJobView();
  const { short } = useWhen();
  const [asking, setAsking] = useState(false);
  const said = job.partQuestions.get(part);
  const closed = job.closed !== null;
  const question = said?.body;
  return (
    <section className="border-base-300 mt-3 border-t pt-2" aria-label="Open question">
      {question && (
        <p className="text-lg" data-question={question.answer ? "answered" : "open"}>
          <span className="stamp quiet mr-2">{question.answer ? "Was open" : "Open question"}</span>
          <b>{question.asks}</b> {question.answer}{" "}
          <span className="quiet">
            ({said.by}, {short(said.at)})
          </span>
          {!question.answer && (
            <span className="block">
              {question.options.length > 0 && `${question.options.join(" or ")}. `}
              {question.until && `By ${question.until}. `}
              {question.waits ? "The build waits for it." : "The build can go on."}
            </span>
          )}
        </p>
      )}
      {question && !question.answer && !closed && (
        <SayForm
          key={said.id}
          kind="part-question"
          fixed={{
            part,
            asks: question.asks,
            options: question.options.join(", "),
            waits: question.waits ? "yes" : "no",
            ...(question.until ? { until: question.until } : {}),
          }}
        >
          {(problems) => (
            <div className="mt-1 flex flex-wrap items-end gap-2">
              {question.options.map((option) => (
                <button key={option} className="btn touch" name="answer" value={option}>
                  {option}
                </button>
              ))}
              {question.options.length === 0 && (
                <>
                  <div className="grow">
                    <Field label="What it came to" name="answer" required problem={problems.answer} />
                  </div>
                  <button className="btn touch mb-3">Answer it</button>
                </>
              )}
            </div>
          )}
        </SayForm>
      )}
      {!closed && (!question || question.answer) && !asking && (
        <button type="button" className="btn touch" onClick={() => setAsking(true)}>
          Ask something about it …
        </button>
      )}
      {asking && (
        <SayForm kind="part-question" fixed={{ part }} onSaid={() => setAsking(false)}>
          {(problems) => (
            <div className="grid gap-x-4 sm:grid-cols-2">
              <Field
                label="What is open"
                name="asks"
                problem={problems.asks}
                placeholder="sleeve the bore, or another body?"
              />
              <Field
                label="It could come to"
                name="options"
                problem={problems.options}
                placeholder="sleeve, another body"
                hint="commas between"
              />
              <Field label="To be decided by" name="until" type="date" problem={problems.until} />
              <Choice
                label="The build"
                name="waits"
                value="no"
                options={[
                  { value: "no", words: "can go on" },
                  { value: "yes", words: "waits for it" },
                ]}
              />
              <div className="flex gap-2">
                <button className="btn btn-secondary touch">Ask it</button>
                <button type="button" className="btn touch" onClick={() => setAsking(false)}>
                  Not now
                </button>
              </div>
            </div>
          )}
        </SayForm>
      )}
    </section>
  );
}
