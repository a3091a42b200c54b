import { useState } from "react";
import { Form } from "react-router";
import { useInside } from "~/door/inside";
import { Choice, Field } from "~/look/field";
import { LEADS, ROLES, type Role } from "~core/fact";
import type { Account } from "~store/staff";

interface Answered {
  typed: Readonly<Record<string, string>>;
  problems: Readonly<Record<string, string>>;
  done: string | undefined;
}

/** Who is known here, what may be done about it, and one more. */
export function People({ everyone, ...answered }: Answered & { everyone: readonly Account[] }) {
  const may = LEADS.includes(useInside().staff.role);
  const { typed, problems } = answered;
  return (
    <>
      <ul className="plate mb-3 px-5 py-2">
        {everyone.map((account) => (
          <Person key={account.id} account={account} may={may} {...answered} />
        ))}
      </ul>
      {may && (
        <Form method="post" className="plate p-5" key={everyone.length}>
          <input type="hidden" name="intent" value="person" />
          <Field label="Name" name="name" defaultValue={typed.name} problem={problems.name} />
          <Choice
            label="Does"
            name="role"
            value={typed.role as Role | undefined}
            problem={problems.role}
            options={ROLES.map((role) => ({ value: role, words: role }))}
          />
          <Field
            label="PIN or password"
            name="secret"
            type="password"
            autoComplete="new-password"
            problem={problems.secret}
          />
          <button className="btn touch">Add</button>
        </Form>
      )}
    </>
  );
}

function Person({ account, may, problems, done }: Answered & { account: Account; may: boolean }) {
  const { id, name, role, active, sessions, tries } = account;
  const [open, setOpen] = useState(false);
  const problem = problems[`account-${id}`];
  const shown = may && (open || Boolean(problem));
  return (
    <li className="border-base-300 border-b py-2 last:border-0" data-account={name}>
      <div className="flex flex-wrap items-center gap-x-3">
        <b className={active ? "" : "line-through"}>{name}</b>
        <span className="quiet grow">
          {active ? role : "switched off"}
          {active && sessions > 0 && `, signed in ${sessions === 1 ? "once" : `${sessions} times`}`}
          {active && tries > 1 && `, ${tries} wrong tries`}
        </span>
        {done === `account-${id}` && (
          <span role="status" className="font-semibold">
            Done.
          </span>
        )}
        {may && (
          <button
            type="button"
            className="btn touch"
            aria-expanded={shown}
            aria-label={`Change the account of ${name}`}
            onClick={() => setOpen(!open)}
          >
            Change …
          </button>
        )}
      </div>
      {problem && (
        <p role="alert" className="text-error font-semibold">
          {problem}
        </p>
      )}
      {shown && (
        <div className="mt-2 flex flex-wrap items-end gap-2">
          {active && (
            <>
              <Form method="post" className="flex items-end gap-2">
                <Ids id={id} />
                <Field
                  label="Another PIN or password"
                  name="secret"
                  type="password"
                  autoComplete="new-password"
                />
                <button className="btn touch mb-3" name="what" value="secret">
                  Give it
                </button>
              </Form>
              {tries > 1 && <One id={id} what="cleared" words="Forget the wrong tries" />}
              <One id={id} what="sessions ended" words="Sign out everywhere" />
            </>
          )}
          {active ? (
            <One id={id} what="switched off" words="Switch off" />
          ) : (
            <One id={id} what="switched on" words="Switch on again" />
          )}
        </div>
      )}
    </li>
  );
}

const Ids = ({ id }: { id: string }) => (
  <>
    <input type="hidden" name="intent" value="account" />
    <input type="hidden" name="staff" value={id} />
  </>
);

const One = ({ id, what, words }: { id: string; what: string; words: string }) => (
  <Form method="post">
    <Ids id={id} />
    <button className="btn touch mb-3" name="what" value={what}>
      {words}
    </button>
  </Form>
);
