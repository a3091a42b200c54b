import { forPage } from "~/look/use-keys";
import { Search } from "lucide-react";
import { useDeferredValue, useEffect, useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { type Applied, type UnitSystem } from "~core/book";
import type { Answer } from "~core/find";
import { useDialog } from "~/look/use-dialog";
import { useLater } from "~/look/later";

/** The index is made when somebody asks: no page waits for it. */
const loadAnswering = () => import("./answering");

/** The one find: a key from anywhere in a job or a book, and the figure stands there. */
export function Find({
  applied,
  unit,
  to,
  className = "btn touch no-print",
}: {
  applied: Applied;
  unit: UnitSystem;
  /** Where an answer stands in full. */
  to: (page: Answer["page"], id: string) => string;
  /** How the button looks where it stands. */
  className?: string;
}) {
  const { dialog, drawn: open, show, close } = useDialog();
  const [query, setQuery] = useState("");
  const [at, setAt] = useState(0);
  const navigate = useNavigate();
  const answering = useLater(loadAnswering);
  const search = useMemo(
    () => (open && answering ? answering.searcher(answering.answers(applied, unit)) : null),
    [open, answering, applied, unit],
  );
  const asked = useDeferredValue(query);
  const found = useMemo(() => search?.(asked) ?? [], [search, asked]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key !== "/" || !forPage(event)) return;
      event.preventDefault();
      show();
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  });
  const go = (answer: Answer | undefined): void => {
    if (!answer) return;
    close();
    void navigate(to(answer.page, answer.id));
  };
  return (
    <>
      <button type="button" className={className} onClick={show}>
        <Search size={20} aria-hidden="true" /> <span>Find</span>{" "}
        <kbd className="key max-[1240px]:hidden">/</kbd>
      </button>
      <dialog
        ref={dialog}
        aria-label="Find"
        className="plate text-base-content mx-auto mt-16 w-[min(52rem,94vw)] p-4 backdrop:bg-black/40"
      >
        {open && (
          <>
            <form
              method="dialog"
              onSubmit={(event) => {
                event.preventDefault();
                go(found[at]);
              }}
            >
              <label className="stamp mb-1 block" htmlFor="find">
                {applied.present.unit.name}: ask for a clearance, a torque, a part
              </label>
              <input
                id="find"
                className="input touch w-full text-2xl"
                autoComplete="off"
                value={query}
                role="combobox"
                aria-expanded={found.length > 0}
                aria-controls="found"
                aria-activedescendant={found[at] ? `found-${at}` : undefined}
                placeholder="pump bolts"
                onChange={(event) => {
                  setQuery(event.target.value);
                  setAt(0);
                }}
                onKeyDown={(event) => {
                  if (event.key === "ArrowDown") setAt(Math.min(found.length - 1, at + 1));
                  else if (event.key === "ArrowUp") setAt(Math.max(0, at - 1));
                  else return;
                  event.preventDefault();
                }}
              />
            </form>
            <ul id="found" role="listbox" aria-label="Answers" className="mt-3 grid gap-1">
              {found.map((answer, i) => (
                <li
                  key={answer.id}
                  id={`found-${i}`}
                  role="option"
                  aria-selected={i === at}
                  className={`touch cursor-pointer rounded border-2 px-4 py-2 ${i === at ? "border-primary bg-base-200" : "border-transparent"}`}
                  onClick={() => go(answer)}
                >
                  <span className="quiet block leading-tight">{answer.title}</span>
                  <span
                    className={`block leading-tight ${i === at ? "text-2xl font-bold" : "text-lg font-semibold"}`}
                  >
                    {answer.answer}
                  </span>
                </li>
              ))}
              {search && asked.trim() !== "" && found.length === 0 && (
                <li className="p-4 text-lg" role="option" aria-selected="false">
                  The book says nothing of this for this version.
                </li>
              )}
            </ul>
            <p className="quiet mt-2 text-sm">
              <kbd className="key">↑</kbd> <kbd className="key">↓</kbd> choose,{" "}
              <kbd className="key">Enter</kbd> goes to where it stands with its working,{" "}
              <kbd className="key">Esc</kbd> closes
            </p>
          </>
        )}
      </dialog>
    </>
  );
}
