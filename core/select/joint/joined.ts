/** Joins places into sets; the lowest place of each stands for it. */
export class Joined {
  private readonly parent: number[];
  private readonly met = new Map<unknown, number>();
  constructor(size: number) {
    this.parent = Array.from({ length: size }, (_, i) => i);
  }
  of(i: number): number {
    while (this.parent[i] !== i) i = this.parent[i] = this.parent[this.parent[i] as number] as number;
    return i;
  }
  join(a: number, b: number): void {
    const [x, y] = [this.of(a), this.of(b)];
    if (x !== y) this.parent[Math.max(x, y)] = Math.min(x, y);
  }
  /** Joins a place with all that met in the same thing before. */
  meet(thing: unknown, place: number): void {
    const first = this.met.get(thing);
    if (first === undefined) this.met.set(thing, place);
    else this.join(first, place);
  }
  /** The sets, each with its places in order. */
  sets(): number[][] {
    const sets = new Map<number, number[]>();
    for (const i of this.parent.keys()) {
      const first = this.of(i);
      const set = sets.get(first);
      if (set) set.push(i);
      else sets.set(first, [i]);
    }
    return [...sets.values()];
  }
}
