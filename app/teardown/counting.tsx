import { FOUND_WRONG } from "~core/fact";
import { Minus, Plus } from "lucide-react";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { ballCount, otherVersions, type Count } from "~core/steps";
import { VersionHint } from "./version-hint";

/** What is counted as it comes out; a number that is not the book's says what it may mean. */
export function Counting({ one }: { one: Count }) {
  const { job } = useJobView();
  const say = useSay();
  const tell = (found: number): void => say({ kind: "count", of: one.id, found: Math.max(0, found) });
  const shown = one.found ?? one.expected;
  const off = one.waitsFor === "" && one.found !== null && one.found !== one.expected;
  return (
    <div className="border-base-300 border-t py-1.5" data-count={one.id}>
      <div className="flex flex-wrap items-center gap-2">
        <span className="grow leading-tight">
          <b>{one.name}</b>
          <span className="quiet block text-sm">
            {one.waitsFor ? <Waits seen={one.waitsFor} /> : `the book: ${one.expected}`}
          </span>
        </span>
        {!job.closed && (
          <button
            type="button"
            className="btn touch"
            aria-label={`${one.name}: one fewer`}
            onClick={() => tell(shown - 1)}
          >
            <Minus size={20} />
          </button>
        )}
        <button
          type="button"
          disabled={job.closed !== null}
          className={`btn touch min-w-16 text-xl ${one.found === null ? "border-dashed" : off ? "btn-error" : "btn-primary"}`}
          aria-label={`${one.name}: ${shown}${one.found === null ? ", not counted yet" : " counted"}`}
          onClick={() => tell(shown)}
        >
          {one.found === null ? `${shown}?` : shown}
        </button>
        {!job.closed && (
          <button
            type="button"
            className="btn touch"
            aria-label={`${one.name}: one more`}
            onClick={() => tell(shown + 1)}
          >
            <Plus size={20} />
          </button>
        )}
      </div>
      {off && <Differs of={one.id} more={(one.found ?? 0) > one.expected} />}
    </div>
  );
}

/** How many there should be hangs on what nobody has seen yet. */
const Waits = ({ seen }: { seen: string }) => (
  <b className="text-warning" data-waits-for={seen}>
    how many there should be waits for: {seen}
  </b>
);

/** A count that is not the book's: found wrong, or another version than was thought. */
function Differs({ of, more }: { of: string; more: boolean }) {
  const { job, applied, depths } = useJobView();
  const say = useSay();
  const what = more ? "too-many" : "too-few";
  const noted = job.wrongs.some(({ body }) => body.of === of && body.what === what);
  const others = otherVersions(job, applied, job.configuration, depths, of);
  return (
    <div role="alert" className="border-error my-1 border-l-4 pl-3">
      <p className="font-semibold">Not what the book has for this version.</p>
      {others.map((version) => (
        <VersionHint key={`${version.trait} ${version.value}`} version={version}>
          It would be right for:
        </VersionHint>
      ))}
      {noted ? (
        <p className="quiet">Noted as found wrong: it may be part of the cause.</p>
      ) : (
        <button
          type="button"
          className="btn touch"
          onClick={() => say({ kind: "wrong", what, of, note: "counted", there: true })}
        >
          Note as found wrong: {FOUND_WRONG.words[what]}
        </button>
      )}
    </div>
  );
}

/** Check balls by their places, as the plate shows them. */
export function Balls() {
  const { job, applied } = useJobView();
  const say = useSay();
  const balls = ballCount(job, applied);
  if (!balls) return null;
  const { expected, found, extra, missing } = balls;
  const there = found?.body.there ?? [];
  const tell = (next: readonly string[], more = extra): void =>
    say({ kind: "balls", there: [...next], extra: Math.max(0, more) });
  const total = there.length + extra;
  return (
    <section className="border-base-300 border-t py-2" aria-label="Check balls" data-balls={total}>
      <div className="flex flex-wrap items-center gap-3">
        <b className="text-lg">Check balls</b>
        <span className="figure text-2xl">{balls.waitsFor ? total : `${total} of ${expected.length}`}</span>
        {balls.waitsFor && <Waits seen={balls.waitsFor} />}
        <span className="grow" />
        {!job.closed && (
          <>
            <button type="button" className="btn touch" onClick={() => tell(expected.map(({ id }) => id))}>
              All {expected.length} there
            </button>
            <button type="button" className="btn touch" onClick={() => tell(there, extra + 1)}>
              One where the book has none
            </button>
            {extra > 0 && (
              <button
                type="button"
                className="btn touch"
                aria-label="One fewer there"
                onClick={() => tell(there, extra - 1)}
              >
                <Minus size={20} />
              </button>
            )}
          </>
        )}
      </div>
      <ul className="mt-1 flex flex-wrap gap-2">
        {expected.map(({ id, name }, i) => {
          const seen = there.includes(id);
          return (
            <li key={id}>
              <button
                type="button"
                role="checkbox"
                aria-checked={seen}
                disabled={job.closed !== null}
                className={`btn touch ${seen ? "btn-primary" : ""}`}
                onClick={() => tell(seen ? there.filter((one) => one !== id) : [...there, id])}
              >
                {i + 1} {name}
              </button>
            </li>
          );
        })}
      </ul>
      {found && balls.waitsFor === "" && (missing.length > 0 || extra > 0) && (
        <Differs of="balls" more={total > expected.length} />
      )}
    </section>
  );
}
