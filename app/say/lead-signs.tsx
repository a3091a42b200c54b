import { Form } from "react-router";
import { useRef } from "react";
import { Choice, Field } from "~/look/field";
import { emptied, useRefused } from "~/look/use-refused";
import type { FormAnswer } from "~/view/form-answer";

/** A lead answers for something as it is: they choose their name and type their PIN here, whoever sits at the bench. */
export function LeadSigns({
  intent,
  summary,
  leads,
  id,
  actionData,
  means = "",
  fixed = {},
}: {
  intent: string;
  summary: string;
  leads: { id: string; name: string }[];
  id: string;
  actionData: FormAnswer | undefined;
  /** What comes of it, where the summary does not say it all. */
  means?: string;
  /** What it is signed for, where the page does not know. */
  fixed?: Readonly<Record<string, string>>;
}) {
  const sent = actionData?.intent === intent ? actionData : undefined;
  const problems = sent?.problems ?? {};
  const form = useRef<HTMLFormElement>(null);
  useRefused(actionData, problems.pin !== undefined, () => emptied(form.current, "pin"));
  return (
    <details className="plate px-4 py-1" open={Object.keys(problems).length > 0}>
      <summary className="touch flex cursor-pointer items-center font-semibold underline underline-offset-4">
        {summary}
      </summary>
      <Form method="post" preventScrollReset ref={form}>
        <input type="hidden" name="intent" value={intent} />
        <input type="hidden" name="id" value={id} />
        {Object.entries(fixed).map(([name, value]) => (
          <input key={name} type="hidden" name={name} value={value} />
        ))}
        {means && <p className="mb-2">{means}</p>}
        <LeadFields leads={leads} problems={problems} typed={sent?.typed ?? {}} />
        <button className="btn btn-primary touch mb-3 w-full">Sign</button>
      </Form>
    </details>
  );
}

/** What every signature asks for: why, whose name, and their PIN. */
export const LeadFields = ({
  leads,
  problems,
  typed,
}: {
  leads: readonly { id: string; name: string }[];
  problems: Readonly<Record<string, string | undefined>>;
  typed: Readonly<Record<string, string | undefined>>;
}) => (
  <>
    <Field label="Reason" name="reason" defaultValue={typed.reason} problem={problems.reason} />
    <Choice
      label="Lead"
      name="lead"
      searched
      value={typed.lead}
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
  </>
);
