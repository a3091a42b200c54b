import { AlertTriangle } from "lucide-react";
import type { ReactNode } from "react";
import { SignsFor } from "~/build/signing";
import { useWhen } from "~/door/when";
import { useJobView } from "~/view/view";
import { isSettled, type ProvingItem } from "~core/prove";

/** One thing to prove at arm’s length: its name, what it waits for, who answered it; then what is done about it. */
export function ProvePanel({
  item,
  caution,
  leftOut = "Left out: a lead signs",
  children,
}: {
  item: ProvingItem;
  caution?: string | undefined;
  /** What a lead puts their name to. */
  leftOut?: string;
  children: ReactNode;
}) {
  const { job, applied } = useJobView();
  const { short } = useWhen();
  const warned = applied.present.cautions?.find(({ id }) => id === caution);
  const { signed } = item;
  const waits = !isSettled(item) && item.after.length > 0;
  return (
    <section className="plate p-4" aria-label="This one" data-shown={item.key} data-at={item.at}>
      <h2 className="text-3xl leading-tight font-bold first-letter:uppercase">{item.name}</h2>
      {item.fact && (
        <p className="mt-1 text-lg" role="status">
          {item.at === "done" ? (
            <b>Done</b>
          ) : item.at === "not so" ? (
            <b className="text-error">Not so</b>
          ) : (
            "Last"
          )}{" "}
          by {item.fact.by}, {short(item.fact.at)}
          {item.words && `: ${item.words}`}
        </p>
      )}
      {signed && (
        <p className="mt-1 text-lg" role="status">
          <b>Signed</b> by {signed.body.signedBy}: {signed.body.reason}
        </p>
      )}
      {warned && (
        <p className="border-accent bg-base-200 mt-2 flex items-center gap-3 border-l-4 px-3 py-2 text-lg font-semibold">
          <AlertTriangle size={26} aria-hidden="true" className="shrink-0" /> {warned.text}
        </p>
      )}
      {waits && !job.closed && (
        <div className="border-warning mt-3 border-l-4 pl-3 text-lg" data-comes-first={item.after.length}>
          <b>Comes first:</b> {item.after.slice(0, SHOWN).join(" · ")}
          {item.after.length > SHOWN && ` and ${item.after.length - SHOWN} more`}
        </div>
      )}
      {!job.closed && children}
      {!job.closed && !isSettled(item) && <SignsFor of={item.key} summary={leftOut} />}
    </section>
  );
}

const SHOWN = 5;
