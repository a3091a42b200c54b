import { useRef, useState } from "react";
import { ask } from "~/look/ask";
import { Choice, Choices } from "~/look/field";
import { useInside } from "~/door/inside";
import { isLessThanAgreed, LEADS, type FactBody } from "~core/fact";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";

type Picked = { traits: Record<string, string> } | { depths: string[] };

/** What may turn out otherwise while the job is open: the unit's version, how deep the work goes, whose it is. */
export function Correct() {
  const { job, book, depths, number } = useJobView();
  const { staff } = useInside();
  const say = useSay();
  const [picked, setPicked] = useState<Picked | null>(null);
  // Undefined while it is asked; null when the server is away.
  const [changes, setChanges] = useState<string[] | null | undefined>(undefined);
  const asked = useRef(0);
  if (job.closed) return null;
  const choose = (what: Picked): void => {
    setPicked(what);
    const search = new URLSearchParams(
      "traits" in what ? what.traits : what.depths.map((depth) => ["depth", depth]),
    );
    const mine = ++asked.current;
    setChanges(undefined);
    void ask<{ lines: string[] }>(`/jobs/${number}/changes?${search}`).then((answer) => {
      if (mine === asked.current) setChanges(answer?.lines ?? null);
    });
  };
  const forALead =
    picked !== null &&
    "depths" in picked &&
    !LEADS.includes(staff.role) &&
    isLessThanAgreed(book, job, picked.depths);
  const keep = (): void => {
    if (!picked) return;
    const body: FactBody =
      "traits" in picked
        ? { kind: "configuration", traits: picked.traits }
        : { kind: "scope", depths: picked.depths };
    say(body);
    setPicked(null);
  };
  return (
    <details className="mt-3">
      <summary className="touch flex cursor-pointer items-center font-semibold underline underline-offset-4">
        Correct what was seen, the scope, or whose it is
      </summary>
      {book.traits.map((trait) => (
        <Choice
          key={trait.id}
          label={trait.name}
          name={`trait-${trait.id}`}
          value={(picked && "traits" in picked && picked.traits[trait.id]) || job.configuration[trait.id]}
          onChange={(value) => choose({ traits: { [trait.id]: value } })}
          options={Object.entries(trait.values).map(([value, { name, tell }]) => ({
            value,
            words: `${name}: ${tell}`,
          }))}
        />
      ))}
      <Choices
        label="How deep the work goes, one or several"
        name="depth"
        values={picked && "depths" in picked ? picked.depths : depths}
        onChange={(values) => choose({ depths: values })}
        options={book.depths.map((value) => ({ value, words: value }))}
      />
      {picked && (
        <div className="border-accent mb-4 border-l-4 pl-4" role="status">
          <p className="text-lg font-bold">
            {changes
              ? `${changes.length} things change. No reading is lost.`
              : changes === null
                ? "The shop’s server is away: what changes is told when it answers. No reading is lost."
                : "Looking what changes …"}
          </p>
          {changes && (
            <ul className="mb-2 max-h-60 overflow-y-auto">
              {changes.map((line, i) => (
                <li key={i} className="first-letter:uppercase">
                  {line}
                </li>
              ))}
            </ul>
          )}
          {forALead ? (
            <p className="mb-1 font-bold" role="alert">
              The unit is open: a lead decides that less is done to it.
            </p>
          ) : (
            <button
              type="button"
              className="btn btn-primary touch"
              disabled={"depths" in picked && picked.depths.length === 0}
              onClick={keep}
            >
              Correct it
            </button>
          )}
          <button type="button" className="btn btn-ghost touch" onClick={() => setPicked(null)}>
            Leave it
          </button>
        </div>
      )}
      {job.holder?.body.name !== staff.name && (
        <button
          type="button"
          className="btn touch"
          onClick={() => say({ kind: "holder", name: staff.name, staff: staff.id })}
        >
          Take it over
        </button>
      )}
    </details>
  );
}
