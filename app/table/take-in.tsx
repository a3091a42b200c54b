import { useId } from "react";

/** Where a table is pasted, or a file of it chosen; what is wrong with it stands at it, line by line. */
export function TakeInTable({
  label,
  typed,
  problem,
  placeholder,
  help,
  rows = 8,
}: {
  label: string;
  typed: string | undefined;
  problem: string | undefined;
  placeholder: string;
  help: string;
  rows?: number;
}) {
  const id = useId();
  return (
    <>
      <label htmlFor={id} className="stamp mb-1 block">
        {label}
      </label>
      <textarea
        id={id}
        name="list"
        key={typed}
        defaultValue={typed}
        rows={rows}
        spellCheck={false}
        aria-invalid={problem ? true : undefined}
        aria-describedby={`${id}-help`}
        placeholder={placeholder}
        className={`textarea figure w-full ${problem ? "textarea-error" : ""}`}
      />
      {problem && (
        <ul role="alert" className="text-error mt-1 font-semibold">
          {problem.split("\n").map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
      )}
      <p id={`${id}-help`} className="quiet mt-1 text-sm">
        {help}
      </p>
      <label className="stamp mt-3 mb-1 block">
        Or a file
        <input type="file" name="file" accept=".csv,.txt,text/csv" className="file-input touch mt-1 w-full" />
      </label>
    </>
  );
}
