import { useState } from "react";
import { Large, useGo } from "~/build/large";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import { codesAt, type ProvingItem } from "~core/prove";
import type { Proof } from "~core/book";
import { useVehicle } from "./use-vehicle";

interface Code {
  code: string;
  /** Of this unit or not; null until somebody says so. */
  own: boolean | null;
}

/** What the control unit remembers: read off it or typed, each code said to be this unit’s or not, cleared, and read again. */
export function CodesPanel({ item, proof }: { item: ProvingItem; proof: Proof }) {
  const { job, number } = useJobView();
  const say = useSay();
  const [connected, setConnected] = useState(false);
  const { vehicle, problem, ask } = useVehicle(number, connected);
  const [listed, setListed] = useState<readonly Code[]>([]);
  const [typed, setTyped] = useState("");
  const standing = codesAt(job, item.subject, proof.no);
  const clears = standing.next === "again";
  const before = new Map([
    ...job.codes.flatMap(({ body: { code, related } }): [string, boolean][] =>
      related === "unsure" ? [] : [[code, related === "yes"]],
    ),
    ...(standing.fact?.body.codes ?? []).map(({ code, own }): [string, boolean] => [code, own]),
  ]);
  const add = (...codes: readonly string[]): void => {
    const fresh = codes.map((one) => one.trim()).filter(Boolean);
    // What was judged once is not asked again.
    const known = new Map(listed.map((one) => [one.code, one]));
    setListed([
      ...listed,
      ...[...new Set(fresh)]
        .filter((code) => !known.has(code))
        .map((code) => ({ code, own: before.get(code) ?? null })),
    ]);
    setTyped("");
  };
  const [empty, setEmpty] = useState(false);
  const read = async (): Promise<void> => {
    const told = await ask({});
    setEmpty(told?.codes.length === 0);
    add(...(told?.codes ?? []));
  };
  const open = listed.filter(({ own }) => own === null).length;
  const may = !job.closed && open === 0 && typed.trim() === "";
  const keep = (): void => {
    say({
      kind: "codes-read",
      proof: item.subject,
      when: standing.next,
      codes: listed.map(({ code, own }) => ({ code, own: own === true })),
    });
    setListed([]);
    setEmpty(false);
  };
  useGo(may ? keep : undefined);
  return (
    <div
      className={`mt-3 rounded border-4 p-4 ${item.at === "done" ? "border-base-300" : item.at === "not so" ? "border-error" : "border-primary"}`}
      data-turn={item.key}
    >
      <span className="stamp quiet">{clears ? "After clearing" : "Read them"}</span>
      {standing.fact && (
        <ul aria-label="What was read last" className="mb-3 text-lg">
          {standing.own.map((code) => (
            <li key={code} className={standing.cleared ? "text-error font-semibold" : "font-semibold"}>
              {code}: of this unit{standing.cleared && ", came back"}
            </li>
          ))}
          {standing.others.map((code) => (
            <li key={code}>{code}: not of this unit; it goes on the customer’s sheet</li>
          ))}
        </ul>
      )}
      <Large>
        {item.at === "done"
          ? "Nothing of this unit is remembered"
          : !standing.fact
            ? "What does it remember?"
            : standing.cleared
              ? (proof.no ?? "Mend it, clear it, and look again")
              : "Clear them, and look again"}
      </Large>
      <div className="mt-3 flex flex-wrap gap-2">
        {connected && vehicle ? (
          <>
            {clears && (
              <button
                type="button"
                className="btn btn-lg touch"
                onClick={() => void ask({ control: { clear: true } })}
              >
                Clear on the vehicle
              </button>
            )}
            <button type="button" className="btn btn-lg touch" onClick={() => void read()}>
              Read from the vehicle
            </button>
          </>
        ) : (
          <button type="button" className="btn btn-lg touch" onClick={() => setConnected(true)}>
            Connect the vehicle (simulated)
          </button>
        )}
        <form
          className="flex gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            add(typed);
          }}
        >
          <input
            aria-label="A code as it reads"
            className="input input-lg touch w-72"
            placeholder="or type one as it reads"
            maxLength={120}
            value={typed}
            onChange={({ currentTarget }) => setTyped(currentTarget.value)}
          />
          <button className="btn btn-lg touch" disabled={typed.trim() === ""}>
            Add
          </button>
        </form>
      </div>
      {problem && (
        <p role="alert" className="text-error font-semibold">
          {problem}
        </p>
      )}
      {empty && listed.length === 0 && (
        <p role="status" className="mt-2 text-lg font-semibold">
          The vehicle remembers nothing.
        </p>
      )}
      <ul aria-label="Codes read now" className="mt-3 grid gap-2">
        {listed.map((one) => (
          <Judged
            key={one.code}
            {...one}
            onJudge={(own) =>
              setListed(listed.map((other) => (other.code === one.code ? { ...other, own } : other)))
            }
            onDrop={() => setListed(listed.filter((other) => other.code !== one.code))}
          />
        ))}
      </ul>
      <button
        type="button"
        disabled={!may}
        className="btn btn-primary btn-lg touch mt-3 w-full text-xl"
        onClick={keep}
      >
        {listed.length === 0
          ? clears
            ? "None came back"
            : "No codes"
          : open > 0
            ? `Of this unit or not? ${open} to say`
            : `Keep ${listed.length === 1 ? "this one" : `these ${listed.length}`}`}{" "}
        <kbd className="key">d</kbd>
      </button>
    </div>
  );
}

function Judged({
  code,
  own,
  onJudge,
  onDrop,
}: Code & { onJudge: (own: boolean) => void; onDrop: () => void }) {
  return (
    <li className="plate flex flex-wrap items-center gap-2 px-3 py-2" data-code={code}>
      <span className="min-w-0 grow text-xl font-semibold">{code}</span>
      <div className="join" role="group" aria-label={`Whose is ${code}`}>
        {[true, false].map((is) => (
          <button
            key={`${is}`}
            type="button"
            aria-pressed={own === is}
            className={`btn touch join-item ${own === is ? "btn-secondary" : ""}`}
            onClick={() => onJudge(is)}
          >
            {is ? "Of this unit" : "Not of it"}
          </button>
        ))}
      </div>
      <button type="button" className="btn btn-ghost touch" aria-label={`Not ${code}`} onClick={onDrop}>
        ✕
      </button>
    </li>
  );
}
