/** A place in a document, as its keys: `["chains", 2, "spec", "max"]`. */
export type Path = readonly (string | number)[];

/** `chains[2].spec.max`, as the check names places. */
export const pathText = (path: Path): string =>
  path.map((step, i) => (typeof step === "number" ? `[${step}]` : i === 0 ? step : `.${step}`)).join("");

/** `chains[2].spec.max` → its keys. */
export function pathOf(text: string): Path {
  return [...text.matchAll(/\[(\d+)\]|([^.[\]]+)/g)].map(([, index, key = ""]) =>
    index === undefined ? key : Number(index),
  );
}

type Node = Record<string | number, unknown>;

/** What stands at a place; undefined where nothing does. */
export function at(document: unknown, path: Path): unknown {
  return path.reduce<unknown>(
    (value, step) => (typeof value === "object" && value !== null ? (value as Node)[step] : undefined),
    document,
  );
}

/** A copy of a document with one place changed; undefined takes the key or the entry out. Everything else is shared. */
export function changed(document: unknown, path: Path, value: unknown): unknown {
  const [step, ...rest] = path;
  if (step === undefined) return value;
  if (Array.isArray(document) || (document === undefined && typeof step === "number")) {
    const list = [...((document as unknown[] | undefined) ?? [])];
    if (rest.length === 0 && value === undefined) list.splice(Number(step), 1);
    else list[Number(step)] = changed(list[Number(step)], rest, value);
    return list;
  }
  const copy: Node = { ...(document as Node | undefined) };
  const next = changed(copy[step], rest, value);
  if (next === undefined) delete copy[step];
  else copy[step] = next;
  return copy;
}
