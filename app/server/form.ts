import { BETWEEN, check, readFields, type Fields, type Form, type Shape, type Values } from "~core/shape";

/** What a form gets back when something was wrong: a message at each field, and everything as it was typed. */
export interface FormProblems {
  problems: Record<string, string>;
  typed: Record<string, string>;
}

/** The fields of a submitted form as they were typed; files are left out. */
export async function typedIn(request: Request): Promise<Fields> {
  const typed: Record<string, string> = {};
  for (const [name, value] of await request.clone().formData())
    if (typeof value === "string")
      typed[name] = Object.hasOwn(typed, name) ? `${typed[name]}${BETWEEN}${value}` : value;
  return typed;
}

/**
 * Checks what was typed into a form at the edge.
 *
 * @returns the values, or every problem by field and what was typed, but for secrets.
 */
export function readForm<F extends Form>(form: F, typed: Fields): { values: Values<F> } | FormProblems {
  const read = readFields(form, typed, held);
  if (read.ok) return { values: read.values };
  // A PIN is typed anew and never sent back.
  const shown = Object.entries(typed).filter(([name]) => !(Object.hasOwn(form, name) && form[name]?.asTyped));
  return { problems: read.problems, typed: Object.fromEntries(shown) };
}

const held = (shape: Shape<unknown>, given: unknown): { value: unknown } | null => {
  const { value, problems } = check(shape, given);
  return problems.length === 0 ? { value } : null;
};
