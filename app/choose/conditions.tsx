import { useState } from "react";
import { Check } from "lucide-react";
import { Choices } from "~/look/field";
import { useSay } from "~/say/use-say";
import type { Worksheet } from "~core/measure";

/** Under what the book wants it read, asked once for each trial assembly: what is read otherwise does not count. */
export function Conditions({ sheet }: { sheet: Worksheet }) {
  const say = useSay();
  const { conditions, applied, fit } = sheet;
  const [changing, setChanging] = useState(false);
  const [met, setMet] = useState<string[]>(conditions.said?.body.met ?? []);
  if (applied.conditions.length === 0) return null;
  const tell = (all: string[]): void => {
    say({ kind: "conditions", chain: applied.chain.id, phase: "built", fit, met: all });
    setMet(all);
    setChanging(false);
  };
  if (conditions.missing.length === 0 && !changing)
    return (
      <p className="plate flex items-center gap-3 px-4 py-1" data-conditions="met">
        <Check size={22} className="text-success shrink-0" aria-hidden="true" />
        <span className="grow leading-tight">
          Read with <b>{applied.conditions.join(", ")}</b>
          <span className="quiet block text-sm">said by {conditions.said?.by}</span>
        </span>
        <button type="button" className="btn touch" onClick={() => setChanging(true)}>
          Not so
        </button>
      </p>
    );
  return (
    <form
      className="plate border-warning border-l-4 px-4 py-2"
      data-conditions="open"
      onSubmit={(event) => {
        event.preventDefault();
        tell(met);
      }}
    >
      <Choices
        label="Before it is read"
        name="met"
        options={applied.conditions.map((one) => ({ value: one, words: one }))}
        values={met}
        onChange={setMet}
      />
      <div className="flex gap-2">
        <button type="button" className="btn btn-primary touch grow" onClick={() => tell(applied.conditions)}>
          All of it is so
        </button>
        <button className="btn touch">Only what is ticked</button>
      </div>
      {conditions.said && (
        <p className="text-warning mt-1 font-semibold">
          Without {conditions.missing.join(", ")}: what is read does not count.
        </p>
      )}
    </form>
  );
}
