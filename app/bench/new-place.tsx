import { SayForm } from "~/say/say-form";
import { Choice, Field } from "~/look/field";
import { PLACE_SORTS, wordsOf } from "~core/fact";

/** Names a tray, a bin or a bag of this job. */
export function NewPlace() {
  return (
    <SayForm kind="place">
      {(problems) => (
        <>
          <Choice
            label="What it is"
            name="sort"
            problem={problems.sort}
            options={wordsOf(PLACE_SORTS)
              .filter(([sort]) => sort !== "case")
              .map(([value, words]) => ({ value, words }))}
          />
          <Field label="Name" name="name" problem={problems.name} autoComplete="off" placeholder="D1 drum" />
          <button className="btn touch">Add it</button>
        </>
      )}
    </SayForm>
  );
}
