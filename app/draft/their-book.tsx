import { useMemo, useState } from "react";
import { isSameUnit, offersOf, takeOver, withoutPictureData, type PictureData } from "~core/book";
import { isRecord } from "~core/shape";

/** Another shop's book of the same unit, held against this draft: what it says otherwise is taken over singly. */
export function TheirBook({ document, change }: { document: unknown; change: (document: unknown) => void }) {
  const [theirs, setTheirs] = useState<Record<string, unknown> | null>(null);
  const [problem, setProblem] = useState("");
  const offers = useMemo(() => (theirs ? offersOf(document, theirs) : []), [document, theirs]);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const keyOf = ({ section, key }: { section: string; key: string }): string => `${section} ${key}`;
  const read = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setTheirs(null);
    setPicked(new Set());
    try {
      const other: unknown = JSON.parse(await file.text());
      if (!isRecord(other)) return setProblem("This is no book.");
      if (!isSameUnit(document, other))
        return setProblem("This book is of another unit: figures of different units never mix.");
      setProblem("");
      setTheirs(other);
    } catch {
      setProblem("The file is not JSON: choose a book, a .json file.");
    }
  };
  const take = async (): Promise<void> => {
    if (!theirs || !isRecord(document)) return;
    const taken = offers.filter((one) => picked.has(keyOf(one)));
    // What shows a picture comes with it; its bytes are kept by themselves.
    const { document: bare, pictures } = withoutPictureData(takeOver(document, theirs, taken));
    change(bare);
    setPicked(new Set());
    setProblem(await keptShared(pictures));
  };
  return (
    <section className="plate p-5" aria-label="Another shop’s book">
      <label className="flex flex-wrap items-center gap-3 text-lg">
        Their book of this unit
        <input
          type="file"
          accept=".json,application/json"
          className="file-input touch"
          onChange={({ currentTarget }) => void read(currentTarget.files?.[0])}
        />
      </label>
      {problem && (
        <p role="alert" className="text-error mt-2 font-semibold">
          {problem}
        </p>
      )}
      {theirs && offers.length === 0 && (
        <p className="mt-3 text-lg">It says nothing that this draft does not.</p>
      )}
      {offers.length > 0 && (
        <>
          <ul className="mt-3 max-h-[60vh] overflow-y-auto">
            {offers.map((one) => (
              <li key={keyOf(one)} className="border-base-300 border-t py-2" data-offer={keyOf(one)}>
                <label className="flex items-start gap-3">
                  <input
                    type="checkbox"
                    className="checkbox mt-1"
                    checked={picked.has(keyOf(one))}
                    onChange={({ currentTarget: { checked } }) =>
                      setPicked(
                        new Set(
                          checked
                            ? [...picked, keyOf(one)]
                            : [...picked].filter((each) => each !== keyOf(one)),
                        ),
                      )
                    }
                  />
                  <span>
                    <b>{one.name}</b>{" "}
                    <span className="quiet">{one.is === "added" ? "is new" : "is otherwise"}</span>
                    {one.is === "changed" &&
                      one.lines.map((line) => (
                        <span key={line} className="block">
                          {line}
                        </span>
                      ))}
                  </span>
                </label>
              </li>
            ))}
          </ul>
          <button
            type="button"
            className="btn btn-primary touch mt-3"
            disabled={picked.size === 0}
            onClick={() => void take()}
          >
            Take over {picked.size > 0 ? picked.size : ""}
          </button>
        </>
      )}
    </section>
  );
}

/** Keeps the pictures of what is taken over; what is wrong in words, empty where nothing is. */
async function keptShared(pictures: readonly PictureData[]): Promise<string> {
  if (pictures.length === 0) return "";
  try {
    const answer = await fetch("/pictures/shared", {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(pictures),
    });
    if (answer.ok) return "";
    const { problem = "" } = (await answer.json()) as { problem?: string };
    return `Taken over without its pictures: ${problem}.`;
  } catch {
    return "Taken over without its pictures: the shop’s server is away.";
  }
}
