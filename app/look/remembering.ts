/**
 * What is made of a key, made once for each of the last so many that were asked for.
 *
 * @param most how many are kept.
 */
export function remembering<T extends object>(most: number): (key: string, make: () => T) => T {
  const known = new Map<string, T>();
  return (key, make) => {
    const made = known.get(key) ?? make();
    // At the end again: what was asked for longest ago goes first.
    known.delete(key);
    known.set(key, made);
    if (known.size > most) known.delete([...known.keys()][0] ?? "");
    return made;
  };
}
