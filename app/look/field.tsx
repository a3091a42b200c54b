import { useId, useState, type InputHTMLAttributes, type ReactNode } from "react";
import { useScripted } from "./use-scripted";

/** A label, an input, and what is wrong with it. */
export function Field({
  label,
  problem,
  hint,
  ...input
}: { label: string; problem?: string; hint?: ReactNode } & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId();
  return (
    <div className="mb-3">
      <label htmlFor={id} className="stamp mb-1 block">
        {label}
      </label>
      <input
        id={id}
        {...input}
        className={`input touch w-full text-lg ${problem ? "input-error" : ""} ${input.className ?? ""}`}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? `${id}-problem` : hint ? `${id}-hint` : undefined}
      />
      {problem ? (
        <p id={`${id}-problem`} role="alert" className="text-error mt-1 font-semibold">
          {problem}
        </p>
      ) : (
        hint && (
          <p id={`${id}-hint`} className="quiet mt-1 text-sm">
            {hint}
          </p>
        )
      )}
    </div>
  );
}

const TARGET =
  "touch border-base-300 bg-base-100 has-checked:border-primary has-checked:bg-primary has-checked:text-primary-content has-focus-visible:outline-primary flex cursor-pointer items-center rounded border-2 px-3 py-1.5 has-focus-visible:outline-3 has-focus-visible:outline-offset-2";

/** One of a few, folded up: where what is usual stands already. */
export function Select({
  label,
  name,
  options,
  value,
}: {
  label: string;
  name: string;
  options: readonly { value: string; words: string }[];
  value?: string | undefined;
}) {
  const id = useId();
  return (
    <div className="mb-3">
      <label htmlFor={id} className="stamp mb-1 block">
        {label}
      </label>
      <select id={id} name={name} defaultValue={value} className="select touch w-full">
        {options.map(({ value: one, words }) => (
          <option key={one} value={one}>
            {words}
          </option>
        ))}
      </select>
    </div>
  );
}

/** One or several of a few, as large touch targets. */
export function Choices({
  label,
  name,
  options,
  values,
  onChange,
  problem,
}: {
  label: string;
  name: string;
  options: readonly { value: string; words: ReactNode }[];
  values: readonly string[];
  onChange: (values: string[]) => void;
  problem?: string;
}) {
  const id = useId();
  const toggle = (value: string): void =>
    onChange(options.map((option) => option.value).filter((one) => values.includes(one) !== (one === value)));
  return (
    <fieldset className="mb-3">
      <legend className="stamp mb-1">{label}</legend>
      <div className="flex flex-wrap gap-2">
        {options.map(({ value, words }) => (
          <label key={value} className={TARGET}>
            <input
              type="checkbox"
              className="sr-only"
              name={name}
              value={value}
              checked={values.includes(value)}
              onChange={() => toggle(value)}
              aria-describedby={problem ? `${id}-problem` : undefined}
            />
            <span>
              {values.includes(value) && <span aria-hidden="true">✓ </span>}
              {words}
            </span>
          </label>
        ))}
      </div>
      {problem && (
        <p id={`${id}-problem`} role="alert" className="text-error mt-1 font-semibold">
          {problem}
        </p>
      )}
    </fieldset>
  );
}

/** More than this is searched, and only so many are shown at once. */
const MANY = 12;

/** Narrows a list to those whose name has every word typed; all of them where there are few. */
function useSearched<T extends string>(
  options: readonly Option<T>[],
  searched: boolean,
  chosen: T | undefined,
): { shown: readonly Option<T>[]; more: number; field: ReactNode } {
  const [typed, setTyped] = useState("");
  const scripted = useScripted();
  if (!searched || !scripted || options.length <= MANY) return { shown: options, more: 0, field: null };
  const wanted = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const met = options.filter(({ value, words, name = typeof words === "string" ? words : "" }) =>
    value === chosen ? false : wanted.every((word) => name.toLowerCase().includes(word)),
  );
  // What is chosen stays in sight, and in the form.
  const own = options.filter(({ value }) => value === chosen);
  const field = (
    <input
      type="search"
      className="input touch mb-2 w-full text-lg"
      aria-label="Find by name"
      placeholder={`Find among ${options.length}`}
      value={typed}
      onChange={({ target }) => setTyped(target.value)}
      onKeyDown={(event) => event.key === "Enter" && event.preventDefault()}
    />
  );
  return { shown: [...own, ...met.slice(0, MANY)], more: Math.max(0, met.length - MANY), field };
}

interface Option<T extends string> {
  value: T;
  words: ReactNode;
  /** What it is found by, where its words are no text. */
  name?: string;
}

/** One of a few, as large touch targets; one of many by its name. */
export function Choice<T extends string>({
  label,
  name,
  options,
  value,
  onChange,
  problem,
  size = "text-base",
  searched = false,
}: {
  label: string;
  name: string;
  options: readonly Option<T>[];
  value?: T;
  /** Absent in a plain form: then the browser keeps the choice. */
  onChange?: (value: T) => void;
  problem?: string;
  size?: string;
  /** Whether a shop may have hundreds of them. */
  searched?: boolean;
}) {
  const id = useId();
  const [own, setOwn] = useState(value);
  const { shown, more, field } = useSearched(options, searched, onChange ? value : own);
  return (
    <fieldset className="mb-3">
      <legend className="stamp mb-1">{label}</legend>
      {field}
      <div className="flex flex-wrap gap-2">
        {shown.map((option) => (
          <label key={option.value} className={`${TARGET} ${size}`}>
            <input
              type="radio"
              className="sr-only"
              name={name}
              value={option.value}
              {...(onChange
                ? { checked: option.value === value, onChange: () => onChange(option.value) }
                : { defaultChecked: option.value === value, onChange: () => setOwn(option.value) })}
              aria-describedby={problem ? `${id}-problem` : undefined}
            />
            <span>{option.words}</span>
          </label>
        ))}
      </div>
      {more > 0 && <p className="quiet mt-1">{more} more: type a part of the name.</p>}
      {problem && (
        <p id={`${id}-problem`} role="alert" className="text-error mt-1 font-semibold">
          {problem}
        </p>
      )}
    </fieldset>
  );
}
