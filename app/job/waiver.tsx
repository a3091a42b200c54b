import { Form } from "react-router";
import { Choice, Field } from "~/look/field";
import type { FactOf } from "~core/fact";
import type { FormAnswer } from "./form-answer";

/** A lead's signed reason why a pack leaves without an as-built verdict: the lead chooses their name and types their PIN here. */
export function Waiver({
  leads,
  id,
  actionData,
  signed,
}: {
  leads: { id: string; name: string }[];
  id: string;
  actionData: FormAnswer | undefined;
  signed: FactOf<"waiver"> | null;
}) {
  if (signed) {
    return (
      <p className="plate p-4">
        <b>{signed.body.signedBy}</b> signed: “{signed.body.reason}”
      </p>
    );
  }
  const sent = actionData?.intent === "waive" ? actionData : undefined;
  const problems = sent?.problems ?? {};
  return (
    <details className="plate px-4 py-1" open={Object.keys(problems).length > 0}>
      <summary className="touch flex cursor-pointer items-center">
        It must leave without being proven: a lead signs
      </summary>
      <Form method="post" preventScrollReset>
        <input type="hidden" name="intent" value="waive" />
        <input type="hidden" name="id" value={id} />
        <Field label="Reason" name="reason" defaultValue={sent?.typed?.reason} problem={problems.reason} />
        <Choice
          label="Lead"
          name="lead"
          value={sent?.typed?.lead}
          problem={problems.lead}
          options={leads.map((lead) => ({ value: lead.id, words: lead.name }))}
        />
        <Field
          label="Lead’s PIN"
          name="pin"
          type="password"
          inputMode="numeric"
          autoComplete="off"
          problem={problems.pin}
        />
        <button className="btn btn-primary touch mb-3 w-full">Sign</button>
      </Form>
    </details>
  );
}
