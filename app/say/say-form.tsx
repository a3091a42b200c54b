import { useState, type FormEvent, type ReactNode } from "react";
import { v7 as newId } from "uuid";
import { useSay } from "./use-say";
import { useJobView } from "~/view/view";
import { readIntake } from "./form";

/**
 * A form that says one fact: at the bench it is kept in the browser and shown at once; without script it goes to the server, which reads it
 * the same way. What is wrong stands at its field, and what was typed stays.
 */
export function SayForm({
  kind,
  fixed = {},
  className,
  keep = false,
  children,
  onSaid,
}: {
  kind: string;
  /** Fields that are not asked for. */
  fixed?: Readonly<Record<string, string>>;
  className?: string;
  /** Whether what was typed stays after it was said, as when it corrects what is shown. */
  keep?: boolean;
  children: (problems: Readonly<Record<string, string>>) => ReactNode;
  onSaid?: () => void;
}) {
  const { number, applied } = useJobView();
  const say = useSay();
  const [problems, setProblems] = useState<Record<string, string>>({});
  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const form = event.currentTarget;
    const submitter = (event.nativeEvent as SubmitEvent).submitter;
    const entries = [...new FormData(form, submitter)];
    const fields = Object.fromEntries(
      entries.filter((entry): entry is [string, string] => typeof entry[1] === "string"),
    );
    const read = readIntake(fields, applied.present, newId());
    setProblems(read.ok ? {} : read.problems);
    if (!read.ok) {
      const first = Object.keys(read.problems)[0];
      form.querySelector<HTMLElement>(`[name="${first}"]`)?.focus();
      return;
    }
    say(read.body);
    if (!keep) form.reset();
    onSaid?.();
  };
  return (
    <form method="post" action={`/jobs/${number}/say`} className={className} onSubmit={submit} noValidate>
      <input type="hidden" name="kind" value={kind} />
      {Object.entries(fixed).map(([name, value]) => (
        <input key={name} type="hidden" name={name} value={value} />
      ))}
      {children(problems)}
    </form>
  );
}
