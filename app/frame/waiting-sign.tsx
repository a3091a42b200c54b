import { useEffect, useState, type ReactNode } from "react";
import { outbox, type Waiting } from "~/outbox/outbox";
import { useUnsent } from "~/outbox/use-outbox";
import type { Fact } from "~core/fact";

/** So often the server breaks over a fact before somebody is asked to look at it. */
const TRIES = 3;

/** What has been said here and not yet reached the server, and what was set aside; quiet when there is neither. */
export function WaitingSign() {
  const { waiting, aside, away, signedOut } = useUnsent();
  if (waiting.length + aside.length === 0) return null;
  const refused = waiting.filter(({ refused }) => refused !== undefined);
  const failing = waiting.filter(({ refused, failed = 0 }) => refused === undefined && failed >= TRIES);
  return (
    <details className="relative" data-waiting={waiting.length}>
      <summary className="touch flex cursor-pointer items-center gap-2 rounded px-3 font-semibold">
        <span className="border-accent inline-block size-3 rotate-45 border-3" aria-hidden="true" />
        <span role="status" className="whitespace-nowrap">
          {inShort(waiting.length, refused.length + failing.length, aside.length)}
          {refused.length === 0 && away && ", server away"}
          {refused.length === 0 && signedOut && ": sign in again"}
        </span>
      </summary>
      <div className="plate text-base-content absolute right-0 z-10 max-h-[70vh] w-md overflow-y-auto p-4">
        {waiting.length > 0 && <Kept waiting={waiting} signedOut={signedOut} />}
        {refused.map((entry) => (
          <Entry key={entry.fact.id} entry={entry} why={entry.refused}>
            <button type="button" className="btn touch" onClick={() => void outbox.setAside(entry)}>
              Set aside
            </button>
          </Entry>
        ))}
        {failing.map((entry) => (
          <Entry
            key={entry.fact.id}
            entry={entry}
            why={`the server failed over it ${entry.failed} times; it is tried again`}
          >
            <button type="button" className="btn touch" onClick={() => void outbox.setAside(entry)}>
              Set aside
            </button>
          </Entry>
        ))}
        {aside.length > 0 && <h2 className="mt-2 font-bold">Set aside, not sent</h2>}
        {aside.map((entry) => (
          <Entry key={entry.fact.id} entry={entry} why={entry.refused}>
            <button type="button" className="btn touch" onClick={() => void outbox.tryAgain(entry)}>
              Try again
            </button>
            <button type="button" className="btn touch" onClick={() => void outbox.throwAway(entry)}>
              Throw away
            </button>
          </Entry>
        ))}
      </div>
    </details>
  );
}

const inShort = (waiting: number, stuck: number, aside: number): string =>
  stuck > 0 ? `${stuck} not taken` : waiting > 0 ? `${waiting} waiting` : `${aside} set aside`;

const Kept = ({ waiting, signedOut }: { waiting: readonly Waiting[]; signedOut: boolean }) => (
  <p className="mb-2">
    {waiting.some(({ unkept }) => unkept) ? (
      <b className="text-error">This browser keeps nothing: leave this page open until the server has it.</b>
    ) : (
      "Kept on this machine until the server has it."
    )}{" "}
    {signedOut && (
      <a href="/sign-in" className="link">
        Sign in again
      </a>
    )}
  </p>
);

/** One thing said that is not with the server, in words and as it is kept. */
const Entry = ({ entry, why, children }: { entry: Waiting; why?: string; children: ReactNode }) => (
  <div className="border-base-300 mb-2 border-t pt-2">
    <p>
      Job {entry.job}: {useSentence(entry.fact)} <span className="quiet">{entry.fact.by}</span>
    </p>
    {why && <p className="font-semibold">{why}</p>}
    <details className="my-1">
      <summary className="cursor-pointer underline">All of it</summary>
      <pre className="overflow-x-auto text-sm select-all">{JSON.stringify(entry.fact.body, null, 1)}</pre>
    </details>
    <div className="flex gap-2">{children}</div>
  </div>
);

/** What a fact says, in short. The words of all kinds are fetched when they are wanted: hardly any page ever shows them. */
function useSentence({ body }: Fact): string {
  const [sentence, setSentence] = useState("");
  useEffect(() => {
    let wanted = true;
    import("~core/fact").then(
      ({ kindOf }) => wanted && setSentence(kindOf(body.kind).sentence(body, (id) => id)),
      () => {},
    );
    return () => void (wanted = false);
  }, [body]);
  return sentence || body.kind.replaceAll("-", " ");
}
