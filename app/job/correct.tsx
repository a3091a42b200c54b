import { Choice } from "~/look/field";
import { useInside } from "~/door/inside";
import { useJobView } from "./job";
import { useSay } from "./say";

/** What may turn out otherwise while the job is open: the unit's version, how deep the work goes, whose it is. */
export function Correct() {
  const { job, book, depth } = useJobView();
  const { staff } = useInside();
  const say = useSay();
  if (job.closed) return null;
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
          value={job.configuration[trait.id]}
          onChange={(value) => say({ kind: "configuration", traits: { [trait.id]: value } })}
          options={Object.entries(trait.values).map(([value, { name, tell }]) => ({
            value,
            words: `${name}: ${tell}`,
          }))}
        />
      ))}
      <Choice
        label="How deep the work goes"
        name="depth"
        value={depth}
        onChange={(value) => say({ kind: "scope", depth: value })}
        options={book.depths.map((value) => ({ value, words: value }))}
      />
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
