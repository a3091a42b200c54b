import { outbox } from "~/outbox/outbox";
import { useOutbox } from "~/outbox/use-outbox";

/** What has been said here and not yet reached the server; quiet when nothing waits. */
export function WaitingSign() {
  const { waiting, away, signedOut } = useOutbox();
  if (waiting.length === 0) return null;
  const refused = waiting.filter((entry) => entry.refused !== undefined);
  return (
    <details className="relative" data-waiting={waiting.length}>
      <summary className="touch flex cursor-pointer items-center gap-2 rounded px-3 font-semibold">
        <span className="border-accent inline-block size-3 rotate-45 border-3" aria-hidden="true" />
        <span role="status" className="whitespace-nowrap">
          {refused.length > 0
            ? `${refused.length} not taken`
            : `${waiting.length} waiting${away ? ", server away" : ""}${signedOut ? ": sign in again" : ""}`}
        </span>
      </summary>
      <div className="plate text-base-content absolute right-0 z-10 w-96 p-4">
        <p className="mb-2">
          {waiting.some(({ unkept }) => unkept) ? (
            <b className="text-error">
              This browser keeps nothing: leave this page open until the server has it.
            </b>
          ) : (
            "Kept on this machine until the server has it."
          )}{" "}
          {signedOut && (
            <a href="/sign-in" className="link">
              Sign in again
            </a>
          )}
        </p>
        {refused.map((entry) => (
          <div key={entry.fact.id} className="mb-2 flex items-center gap-3">
            <span className="grow">
              Job {entry.job}, {entry.fact.body.kind}: <b>{entry.refused}</b>
            </span>
            <button type="button" className="btn touch" onClick={() => void outbox.setAside(entry)}>
              Set aside
            </button>
          </div>
        ))}
      </div>
    </details>
  );
}
